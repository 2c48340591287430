-- The schools that a crew follows, where plants stand in a display, pairs of bulbs, recipes, and what a change replaced.

alter table site add column rules jsonb not null default '{}';
update site set rules = jsonb_build_object('bulbDepth', case bulb_depth when 'Deep' then 'deep' else 'three-times-height' end);
alter table site drop column bulb_depth;

alter table planter add column rules jsonb;

alter table display add column pairs jsonb;
alter table display_item
  add column clump  int check (clump between 2 and 50),
  add column places jsonb;

create table recipe (
  id      text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  name    text not null unique check (length(name) between 1 and 60),
  details jsonb not null,
  version int not null default 1
);

create trigger recipe_revision after insert or update or delete on recipe for each statement execute function raise_revision();

-- A display as it was before its last change, so that the change can be taken back while nothing came after it.
create table display_before (
  display_id text primary key references display (id) on delete cascade,
  version    int not null,
  details    jsonb not null,
  what       text not null check (length(what) <= 200)
);
