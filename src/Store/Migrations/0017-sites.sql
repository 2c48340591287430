-- Many sites in one database. Every row of a site carries it, the site leads every key, and whoever asks sees the rows of the site that
-- the connection was opened for and no others: row-level security, which holds for the owner of the tables too.

create function meadow_site() returns uuid language sql stable as $$
  select nullif(current_setting('meadow.site', true), '')::uuid
$$;

-- True on a connection that looks over all sites: which there are, and which work waits.
create function meadow_every() returns boolean language sql stable as $$
  select coalesce(current_setting('meadow.every', true), '') = 'on'
$$;

alter table site drop constraint site_station_id_fkey;

alter table site drop column id;

alter table site
  add column id uuid primary key default gen_random_uuid(),
  -- The site's part of its addresses.
  add column slug text not null default 'site' unique check (slug ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(slug) <= 60),
  add column made_at timestamptz not null default now();

update site
set slug = coalesce(nullif(trim(both '-' from left(regexp_replace(lower(name), '[^a-z0-9]+', '-', 'g'), 60)), ''), 'site');

alter table site alter column slug drop default;

select set_config('meadow.site', (select id::text from site), true);

alter table planter drop constraint planter_area_id_fkey;
alter table display drop constraint display_planter_id_fkey, drop constraint display_layer_once;
alter table display_item drop constraint display_item_display_id_fkey, drop constraint display_item_plant_id_fkey;
alter table lot drop constraint lot_plant_id_fkey, drop constraint lot_from_planter_id_fkey;
alter table weather_day drop constraint weather_day_station_id_fkey;
alter table live_station drop column id;

do $$
declare
  part text;
  key  text;
begin
  for part, key in values
    ('area', 'id'), ('planter', 'id'), ('plant', 'id'), ('display', 'id'), ('display_item', 'display_id, ordinal'), ('turn', 'id'),
    ('station', 'id'), ('weather_day', 'station_id, day'), ('observation', 'id'), ('live_station', null), ('live_day', 'day'),
    ('map_feature', 'id'), ('lot', 'id'), ('planter_photo', 'id'), ('upload_draft', 'id'), ('recipe', 'id'), ('site_event', 'id'),
    ('job', 'id'), ('plan_change', 'id'), ('plan_variant', 'id'), ('plan_before', 'id'), ('plan_removal', 'version')
  loop
    execute format('alter table %I add column site_id uuid not null default meadow_site() references site (id)', part);
    execute format('alter table %I drop constraint if exists %I', part, part || '_pkey');
    execute format('alter table %I add constraint %I primary key (%s)', part, part || '_pkey', concat_ws(', ', 'site_id', key));
    execute format('alter table %I enable row level security', part);
    execute format('alter table %I force row level security', part);
    execute format('create policy %I on %I using (site_id = (select meadow_site()))', part || '_of_site', part);
  end loop;
end
$$;

alter table site enable row level security;
alter table site force row level security;
create policy site_of_site on site using (id = (select meadow_site()) or (select meadow_every()));
-- A worker finds work of every site; what the work reads and writes it does as the work's own site.
create policy job_of_every on job using ((select meadow_every()));

alter table area drop constraint area_name_key, add constraint area_name_key unique (site_id, name) deferrable initially immediate;
alter table planter
  drop constraint planter_name_key,
  add constraint planter_name_key unique (site_id, name) deferrable initially immediate,
  add constraint planter_area_id_fkey foreign key (site_id, area_id) references area (site_id, id);
alter table display
  add constraint display_planter_id_fkey foreign key (site_id, planter_id) references planter (site_id, id),
  add constraint display_layer_once exclude using gist (site_id with =, planter_id with =, layer with =, during with &&) deferrable initially immediate;
alter table display_item
  add constraint display_item_display_id_fkey foreign key (site_id, display_id) references display (site_id, id) on delete cascade,
  add constraint display_item_plant_id_fkey foreign key (site_id, plant_id) references plant (site_id, id);
alter table lot
  add constraint lot_plant_id_fkey foreign key (site_id, plant_id) references plant (site_id, id),
  add constraint lot_from_planter_id_fkey foreign key (site_id, from_planter_id) references planter (site_id, id);
alter table recipe drop constraint recipe_name_key, add constraint recipe_name_key unique (site_id, name) deferrable initially immediate;
alter table plan_variant drop constraint plan_variant_name_key, add constraint plan_variant_name_key unique (site_id, name);
alter table weather_day
  add constraint weather_day_station_id_fkey foreign key (site_id, station_id) references station (site_id, id) on delete cascade;
alter table site
  add constraint site_station_id_fkey foreign key (id, station_id) references station (site_id, id) on delete set null (station_id);

drop index planter_area, display_planter, display_item_plant, lot_plant, job_once, job_open,
  observation_planter, observation_day, planter_photo_planter, plan_change_made;
create index planter_area on planter (site_id, area_id);
create index display_planter on display (site_id, planter_id);
create index display_item_plant on display_item (site_id, plant_id);
create index lot_plant on lot (site_id, plant_id);
create unique index job_once on job (site_id, kind, inputs) where state in ('Waiting', 'Running', 'Done');
create index job_open on job (asked_at) where state in ('Waiting', 'Running');
create index observation_planter on observation (site_id, planter_id, day);
create index observation_day on observation (site_id, day, id);
create index planter_photo_planter on planter_photo (site_id, planter_id, taken_on);
create index plan_change_made on plan_change (site_id, made_at desc);

do $$
declare
  name text;
begin
  foreach name in array array['planter', 'plant', 'display', 'turn', 'map_feature', 'lot', 'recipe', 'site_event'] loop
    execute format('drop index %I', name || '_by_version');
    execute format('create index %I on %I (site_id, version)', name || '_by_version', name);
  end loop;
end
$$;

-- The revision of the site that is written to, once with each transaction.
create or replace function raise_revision() returns trigger language plpgsql as $$
begin
  if current_setting('meadow.raised', true) is distinct from pg_current_xact_id()::text then
    update site set revision = revision + 1 where id = meadow_site();
    perform set_config('meadow.raised', pg_current_xact_id()::text, true);
  end if;
  return null;
end
$$;

create or replace function note_removal() returns trigger language plpgsql as $$
begin
  insert into plan_removal (site_id, part, id) values (old.site_id, tg_table_name, old.id);
  return null;
end
$$;

-- The role as which the app asks. Row-level security does not bind a superuser, as whom an app on a machine of its own logs in.
do $$
begin
  if not exists (select from pg_roles where rolname = 'meadow_site') then
    create role meadow_site nologin;
  end if;
exception
  -- Another database of the same server makes it at the same moment.
  when duplicate_object or unique_violation then null;
  -- Whoever may not make roles is no superuser, and is bound as the owner of the tables.
  when insufficient_privilege then null;
end
$$;

do $$
begin
  if exists (select from pg_roles where rolname = 'meadow_site') then
    execute 'grant usage on schema public to meadow_site';
    execute 'grant select, insert, update, delete on all tables in schema public to meadow_site';
    execute 'grant usage, select, update on all sequences in schema public to meadow_site';
    execute 'alter default privileges in schema public grant select, insert, update, delete on tables to meadow_site';
    execute 'alter default privileges in schema public grant usage, select, update on sequences to meadow_site';
  end if;
exception
  when insufficient_privilege then null;
end
$$;
