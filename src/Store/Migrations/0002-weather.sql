-- Stations and their daily records. A year brought in twice replaces the days it holds and adds none twice.

create table station (
  id            text primary key check (length(id) between 1 and 40),
  name          text not null check (length(name) between 1 and 80),
  latitude_deg  double precision not null check (latitude_deg between -66 and 66),
  longitude_deg double precision not null check (longitude_deg between -180 and 180),
  elevation_m   double precision not null check (elevation_m between -430 and 5000),
  revision      bigint not null default 1,
  imported_at   timestamptz not null
);

create table weather_day (
  station_id       text not null references station (id) on delete cascade,
  day              date not null,
  min_c            double precision check (min_c between -90 and 60),
  max_c            double precision check (max_c between -90 and 60),
  precipitation_mm double precision check (precipitation_mm between 0 and 2000),
  primary key (station_id, day),
  check (min_c <= max_c)
);

alter table site add column station_id text references station (id) on delete set null;
