-- Every change of the plan with what it was and what it became, whichever door it came through, so that it can be looked at and taken back.
drop table display_before;
drop table plan_change;

create table plan_change (
  id        uuid primary key,
  made_at   timestamptz not null default clock_timestamp(),
  made_by   text not null default '' check (length(made_by) <= 60),
  what      text not null check (length(what) <= 2000),
  -- What it touched, as list:id; and before and after of each, null where all of it would be too much to keep.
  touches   text[] not null,
  parts     text,
  -- The change that it took back, and the one that took it back.
  undoes    uuid,
  undone_by uuid
);

create index plan_change_made on plan_change (made_at desc);
create index plan_change_touches on plan_change using gin (touches);
