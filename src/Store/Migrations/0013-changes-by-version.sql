-- What changed since a plan was read is found by the versions of its rows. Whoever changes the plan holds the site's row before
-- any version is given, so that versions rise in the order in which changes come to stand.
do $$
declare
  name text;
begin
  foreach name in array array['area', 'planter', 'plant', 'display', 'display_item', 'turn', 'map_feature', 'lot', 'recipe', 'site_event'] loop
    execute format('drop trigger %I on %I', name || '_revision', name);
    execute format('create trigger %I before insert or update or delete on %I for each statement execute function raise_revision()', name || '_revision', name);
  end loop;
end
$$;

-- Rows that are gone. A plan brought in clears the list and notes from which version on it tells all.
create table plan_removal (
  version bigint primary key default nextval('edit_version'),
  part    text not null,
  id      text not null
);

alter table site add column removals_from bigint not null default 0;

create function note_removal() returns trigger language plpgsql as $$
begin
  insert into plan_removal (part, id) values (tg_table_name, old.id);
  return null;
end
$$;

do $$
declare
  name text;
begin
  foreach name in array array['planter', 'plant', 'display', 'turn', 'map_feature', 'lot', 'recipe', 'site_event'] loop
    execute format('create trigger %I after delete on %I for each row execute function note_removal()', name || '_removed', name);
    execute format('create index %I on %I (version)', name || '_by_version', name);
  end loop;
end
$$;
