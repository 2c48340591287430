-- Versions that never repeat, one composed form of every text, photographs that outlive a plan brought in anew, what a new
-- plan replaced, messages between two pages, and whose turn it is to have work done.

-- Every edit of anything takes the next number: a page opened before a plan was brought in anew can never fit by chance.
create sequence edit_version;

select setval('edit_version', (
  select 1 + max(v)
  from (
    select version as v from site
    union all select version from planter
    union all select version from plant
    union all select version from display
    union all select version from turn
    union all select version from map_feature
    union all select version from lot
    union all select version from recipe
    union all select version from site_event
  ) as known));

create function next_version() returns trigger language plpgsql as $$
begin
  new.version := nextval('edit_version');
  return new;
end
$$;

-- The settings' version is set where settings are saved: their row changes with every revision too.
alter table site alter column version type bigint, alter column version set default nextval('edit_version');
alter table display_before alter column version type bigint;

do $$
declare
  name text;
begin
  foreach name in array array['planter', 'plant', 'display', 'turn', 'map_feature', 'lot', 'recipe', 'site_event'] loop
    execute format('alter table %I alter column version type bigint', name);
    execute format('create trigger %I before insert or update on %I for each row execute function next_version()', name || '_version', name);
  end loop;
end
$$;

-- The revision rises once with each transaction, however many rows it writes.
create or replace function raise_revision() returns trigger language plpgsql as $$
begin
  if current_setting('meadow.raised', true) is distinct from pg_current_xact_id()::text then
    update site set revision = revision + 1;
    perform set_config('meadow.raised', pg_current_xact_id()::text, true);
  end if;
  return null;
end
$$;

-- Texts are kept composed (Unicode NFC), so that a name typed on one machine is the name typed on another.
create function compose_text() returns trigger language plpgsql as $$
begin
  case tg_table_name
    when 'site' then
      new.name := normalize(new.name);
      new.money := normalize(new.money);
    when 'area', 'turn', 'site_event', 'station', 'plan_variant' then
      new.name := normalize(new.name);
    when 'planter' then
      new.name := normalize(new.name);
      new.note := normalize(new.note);
      new.survey := normalize(new.survey::text)::jsonb;
    when 'lot' then
      new.place := normalize(new.place);
      new.note := normalize(new.note);
    when 'recipe' then
      new.name := normalize(new.name);
      new.details := normalize(new.details::text)::jsonb;
    when 'plant', 'map_feature' then
      new.details := normalize(new.details::text)::jsonb;
    when 'observation' then
      new.note := normalize(new.note);
      new."by" := normalize(new."by");
    when 'planter_photo' then
      new.caption := normalize(new.caption);
  end case;
  return new;
end
$$;

do $$
declare
  name text;
begin
  foreach name in array array['site', 'area', 'turn', 'site_event', 'station', 'plan_variant', 'planter', 'lot', 'recipe', 'plant', 'map_feature', 'observation', 'planter_photo'] loop
    execute format('create trigger %I before insert or update on %I for each row execute function compose_text()', name || '_composed', name);
  end loop;
end
$$;

-- Characters are counted as a reader sees them, in one place of the program; here stands only what no text may ever reach.
alter table site drop constraint site_name_check, add constraint site_name_check check (length(name) between 1 and 600),
  drop constraint site_money_check, add constraint site_money_check check (length(money) between 1 and 40);
alter table area drop constraint area_name_check, add constraint area_name_check check (length(name) between 1 and 600);
alter table planter drop constraint planter_name_check, add constraint planter_name_check check (length(name) between 1 and 600),
  drop constraint planter_note_check, add constraint planter_note_check check (length(note) <= 20000);
alter table turn drop constraint turn_name_check, add constraint turn_name_check check (length(name) between 1 and 600);
alter table lot drop constraint lot_place_check, add constraint lot_place_check check (length(place) between 1 and 600),
  drop constraint lot_note_check, add constraint lot_note_check check (length(note) <= 5000);
alter table recipe drop constraint recipe_name_check, add constraint recipe_name_check check (length(name) between 1 and 600);
alter table site_event drop constraint site_event_name_check, add constraint site_event_name_check check (length(name) between 1 and 600);
alter table observation drop constraint observation_note_check, add constraint observation_note_check check (length(note) <= 10000),
  drop constraint observation_by_check, add constraint observation_by_check check (length(by) between 1 and 400);
alter table station drop constraint station_name_check, add constraint station_name_check check (length(name) between 1 and 800);
alter table live_station drop constraint live_station_name_check, add constraint live_station_name_check check (length(name) between 1 and 800);
alter table planter_photo drop constraint planter_photo_caption_check, add constraint planter_photo_caption_check check (length(caption) <= 2000);
alter table plan_variant drop constraint plan_variant_name_check, add constraint plan_variant_name_check check (length(name) between 1 and 600);
alter table display_before drop constraint display_before_what_check, add constraint display_before_what_check check (length(what) <= 2000);
alter table plan_change drop constraint plan_change_what_check, add constraint plan_change_what_check check (length(what) <= 2000);
alter table upload_draft drop constraint upload_draft_name_check, add constraint upload_draft_name_check check (length(name) <= 2000),
  drop constraint upload_draft_kind_check, add constraint upload_draft_kind_check check (kind in ('palette', 'map', 'plan'));

-- Names may change places within one transaction, as when a plan is brought in over another.
alter table planter drop constraint planter_name_key, add constraint planter_name_key unique (name) deferrable initially immediate;
alter table area drop constraint area_name_key, add constraint area_name_key unique (name) deferrable initially immediate;
alter table recipe drop constraint recipe_name_key, add constraint recipe_name_key unique (name) deferrable initially immediate;

-- Photographs, like the log, stay when the plan forgets their planter, and are there again when it comes back.
alter table planter_photo drop constraint planter_photo_planter_id_fkey,
  add constraint planter_photo_planter_id_check check (length(planter_id) between 1 and 60);

-- Plans that were replaced, so that a plan brought in can be taken back.
create table plan_before (
  id          uuid primary key,
  what        text not null check (length(what) <= 2000),
  plan        text not null,
  replaced_at timestamptz not null default now()
);

-- What one page says through the next; a cookie carries only its id.
create table message (
  id      uuid primary key,
  said    jsonb not null,
  said_at timestamptz not null default now()
);

-- Work is asked by somebody, and a worker that falls silent gives it up.
alter table job
  add column asked_by text not null default '' check (length(asked_by) <= 60),
  add column heard_at timestamptz;

create index job_open on job (asked_at) where state in ('Waiting', 'Running');
create index observation_day on observation (day, id);

-- Keys with which forms are signed, shared by every process.
create table signing_key (
  name    text primary key,
  key     text not null,
  made_at timestamptz not null default now()
);
