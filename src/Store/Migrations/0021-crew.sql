-- Tasks as they were given to people, what was told of them, what was planted, and the minutes that it took.

create table given_task (
  site_id    uuid not null default meadow_site() references site (id),
  id         uuid not null,
  task_id    text not null check (length(task_id) between 1 and 200),
  day        date not null,
  place      int not null default 0,
  stage      text not null check (stage in ('Given', 'Done', 'Withdrawn')),
  -- What is asked, and what was asked before somebody accepted a change.
  asked      jsonb not null,
  earlier    jsonb not null default '[]',
  people     uuid[] not null default '{}',
  -- What was done has made of plan and stock, so that a slip can be mended; null before it was done.
  applied    jsonb,
  -- Why the plan could not follow what was done; null where it could.
  refused    text,
  -- True once a planner has said that what was done otherwise stays so.
  settled    boolean not null default false,
  given_by   uuid references person (id),
  given_at   timestamptz not null default now(),
  version    bigint not null default 0,
  primary key (site_id, id)
);

-- Nobody is given the same work twice at once.
create unique index given_task_once on given_task (site_id, task_id) where stage = 'Given';
create index given_task_day on given_task (site_id, day);

create table task_entry (
  site_id     uuid not null default meadow_site() references site (id),
  id          uuid not null,
  given_id    uuid not null,
  details     jsonb not null,
  person_id   uuid references person (id),
  -- What the person was called when it was written down.
  by          text not null default '' check (length(by) <= 400),
  recorded_at timestamptz not null default now(),
  primary key (site_id, id),
  foreign key (site_id, given_id) references given_task (site_id, id)
);

create index task_entry_given on task_entry (site_id, given_id);

create table task_photo (
  site_id     uuid not null default meadow_site() references site (id),
  id          uuid not null,
  given_id    uuid not null,
  jpeg        bytea not null,
  thumb       bytea not null,
  person_id   uuid references person (id),
  recorded_at timestamptz not null default now(),
  primary key (site_id, id),
  foreign key (site_id, given_id) references given_task (site_id, id)
);

create index task_photo_given on task_photo (site_id, given_id);

create table planting (
  site_id    uuid not null default meadow_site() references site (id),
  id         bigint generated always as identity,
  given_id   uuid not null,
  display_id text not null,
  plant_id   text not null,
  day        date not null,
  count      int not null check (count <> 0),
  primary key (site_id, id),
  foreign key (site_id, given_id) references given_task (site_id, id)
);

-- Minutes taken by minutes of common practice, one row for each kind of work of a task that was timed: as it was told last.
create table labour_time (
  site_id  uuid not null default meadow_site() references site (id),
  given_id uuid not null,
  kind     text not null check (length(kind) between 1 and 40),
  ratio    double precision not null check (ratio > 0),
  primary key (site_id, given_id, kind),
  foreign key (site_id, given_id) references given_task (site_id, id)
);

do $$
declare
  part text;
begin
  foreach part in array array['given_task', 'task_entry', 'task_photo', 'planting', 'labour_time'] loop
    execute format('alter table %I enable row level security', part);
    execute format('alter table %I force row level security', part);
    execute format('create policy %I on %I using (site_id = (select meadow_site()))', part || '_of_site', part);
  end loop;
  foreach part in array array['task_entry', 'task_photo', 'planting'] loop
    execute format('create trigger %I before update or delete or truncate on %I for each statement execute function refuse_change()', part || '_append_only', part);
  end loop;
  foreach part in array array['planting', 'labour_time'] loop
    execute format('create trigger %I before insert or update on %I for each statement execute function raise_revision()', part || '_revision', part);
  end loop;
  execute 'create trigger given_task_version before insert or update on given_task for each row execute function next_version()';
end
$$;
