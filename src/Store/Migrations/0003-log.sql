-- What happened. Written once: the log is never changed and never loses a line, whatever becomes of the plan, so it
-- names planters and plants without depending on them.

create table observation (
  id          uuid primary key,
  planter_id  text not null check (length(planter_id) between 1 and 60),
  plant_id    text check (length(plant_id) between 1 and 60),
  day         date not null,
  kind        text not null check (kind in ('FirstColour', 'Peak', 'Over', 'Died', 'Note')),
  note        text not null check (length(note) <= 1000),
  by          text not null check (length(by) between 1 and 40),
  recorded_at timestamptz not null default now()
);

create index observation_planter on observation (planter_id, day);

create function refuse_change() returns trigger language plpgsql as $$
begin
  raise exception 'the log is append-only';
end
$$;

create trigger observation_append_only before update or delete or truncate on observation
  for each statement execute function refuse_change();
