-- The palette that the sites of an installation share, each time it was shared, and how far each site follows it.

create table palette_sharing (
  number    bigint generated always as identity primary key,
  shared_at timestamptz not null default now(),
  shared_by text not null check (length(shared_by) <= 400),
  -- The site whose palette it was taken from.
  from_site text not null check (length(from_site) <= 400)
);

create table shared_plant (
  id      text primary key,
  details jsonb not null
);

-- What a site was given last: a kind that still has these figures is nobody's own there.
create table given_plant (
  site_id uuid not null default meadow_site() references site (id),
  id      text not null,
  details jsonb not null,
  primary key (site_id, id)
);

create table palette_following (
  site_id     uuid primary key default meadow_site() references site (id),
  number      bigint not null,
  followed_at timestamptz not null default now(),
  added       int not null,
  changed     int not null,
  removed     int not null,
  -- Shared kinds in which the site goes its own way, and kinds that are there alone.
  own         int not null,
  more        int not null,
  -- What could not be taken, and why.
  refused     text not null default ''
);

alter table given_plant enable row level security;
alter table given_plant force row level security;
create policy given_plant_of_site on given_plant using (site_id = (select meadow_site()));

alter table palette_following enable row level security;
alter table palette_following force row level security;
create policy palette_following_of_site on palette_following using (site_id = (select meadow_site()));
-- Who looks over all sites sees how far each follows.
create policy palette_following_of_every on palette_following for select using ((select meadow_every()));
