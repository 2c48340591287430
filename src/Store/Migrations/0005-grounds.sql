-- What the crew saw at each planter, where it stands, the site's map, photographs, stock at hand, and a palette whose
-- plants are edited one by one.

alter table site add column one_person_kg double precision not null default 20 check (one_person_kg between 1 and 60);

alter table planter
  drop constraint planter_shape_check,
  add constraint planter_shape_check check (shape in ('Round', 'Trough', 'Basket', 'RectangularBed', 'OvalBed', 'Oval', 'Bowl', 'HalfBarrel', 'OutlinedBed')),
  drop constraint planter_top_length_cm_check,
  add constraint planter_top_length_cm_check check (top_length_cm between 10 and 100000),
  drop constraint planter_top_width_cm_check,
  add constraint planter_top_width_cm_check check (top_width_cm between 10 and 100000),
  drop constraint planter_bottom_length_cm_check,
  add constraint planter_bottom_length_cm_check check (bottom_length_cm between 0 and 100000),
  drop constraint planter_bottom_width_cm_check,
  add constraint planter_bottom_width_cm_check check (bottom_width_cm between 0 and 100000),
  add column outline    jsonb,
  add column survey     jsonb,
  add column place      jsonb,
  add column is_retired boolean not null default false,
  add constraint planter_outline_whole check ((shape = 'OutlinedBed') = (outline is not null));

alter table plant add column version int not null default 1;

create table map_feature (
  id      text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  details jsonb not null,
  version int not null default 1
);

create table lot (
  id              text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  plant_id        text not null references plant (id),
  count           int not null check (count between 0 and 100000),
  state           text not null check (state in ('Waiting', 'Kept', 'HeeledIn', 'Overwintering', 'Forced', 'Stored')),
  place           text not null check (length(place) between 1 and 60),
  since           date not null,
  condition       text not null check (condition in ('Good', 'Fair', 'Poor')),
  from_planter_id text references planter (id),
  note            text not null check (length(note) <= 500),
  version         int not null default 1
);

create index lot_plant on lot (plant_id);

create trigger map_feature_revision after insert or update or delete on map_feature for each statement execute function raise_revision();
create trigger lot_revision after insert or update or delete on lot for each statement execute function raise_revision();

-- Photographs are re-encoded before they come here; they carry nothing but the picture.
create table planter_photo (
  id         uuid primary key,
  planter_id text not null references planter (id) on delete cascade,
  taken_on   date not null,
  caption    text not null check (length(caption) <= 200),
  width      int not null,
  height     int not null,
  jpeg       bytea not null check (length(jpeg) <= 4000000),
  thumb      bytea not null check (length(thumb) <= 200000),
  added_at   timestamptz not null default now()
);

create index planter_photo_planter on planter_photo (planter_id, taken_on);

-- A file that was looked at and waits for a yes. It is dropped after a day.
create table upload_draft (
  id       uuid primary key,
  kind     text not null check (kind in ('palette', 'map')),
  name     text not null check (length(name) <= 200),
  content  bytea not null,
  added_at timestamptz not null default now()
);

alter table observation
  drop constraint observation_kind_check,
  add constraint observation_kind_check check (kind in ('FirstColour', 'Peak', 'Over', 'Died', 'Note', 'DidWell', 'DidPoorly'));
