-- Cuts while a display stands, what stays on through a turn and what becomes of the rest, what a turn must heed, days on
-- which the site must look its best, long work, changes to be taken back together, and plans kept to compare with.

alter table display add column cuts jsonb;

-- Several displays can change places in time within one transaction; by itself every statement is still checked at once.
alter table display
  drop constraint display_layer_once,
  add constraint display_layer_once exclude using gist (planter_id with =, layer with =, during with &&) deferrable initially immediate;

alter table display_item
  add column since date,
  add column forced boolean not null default false,
  add column fate  text check (fate in ('Compost', 'Stays', 'Keep', 'Store', 'ToBed', 'SeedSaved'));

alter table turn
  add column full_by  date check (full_by >= first_day),
  add column delivery date,
  add column people   int check (people between 1 and 200);

create table site_event (
  id        text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  name      text not null check (length(name) between 1 and 60),
  first_day date not null,
  last_day  date not null check (last_day between first_day and first_day + 60),
  version   int not null default 1
);

create trigger site_event_revision after insert or update or delete on site_event for each statement execute function raise_revision();

-- Work that takes longer than a page may: asked once, done by whichever process is free, kept by what it rests on.
create table job (
  id         uuid primary key,
  kind       text not null,
  inputs     text not null,
  question   jsonb not null,
  state      text not null default 'Waiting' check (state in ('Waiting', 'Running', 'Done', 'Failed', 'Cancelled')),
  done       int not null default 0,
  total      int not null default 0,
  said       text not null default '',
  result     jsonb,
  asked_at   timestamptz not null default now(),
  started_at timestamptz,
  ended_at   timestamptz
);

-- The same question about the same plan and weather is one job, unless the last one failed or was called off.
create unique index job_once on job (kind, inputs) where state in ('Waiting', 'Running', 'Done');

-- Changes to several displays made at one click, with what they replaced, so that they can be taken back together.
create table plan_change (
  id       uuid primary key,
  what     text not null check (length(what) <= 200),
  details  jsonb not null,
  made_at  timestamptz not null default now(),
  undone_at timestamptz
);

-- Plans kept beside the present one, to compare with.
create table plan_variant (
  id      uuid primary key,
  name    text not null unique check (length(name) between 1 and 60),
  plan    jsonb not null,
  kept_at timestamptz not null default now()
);
