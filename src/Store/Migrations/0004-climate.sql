-- More of what stations report, stations known only by monthly normals, the site's place, planters' skylines, and the
-- latest word of a live station.

alter table weather_day
  add column snow_depth_mm double precision check (snow_depth_mm between 0 and 12000),
  add column wind_ms       double precision check (wind_ms between 0 and 80),
  add column humidity_pct  double precision check (humidity_pct between 0 and 100),
  add column sun_mj        double precision check (sun_mj between 0 and 45);

alter table station
  drop constraint station_latitude_deg_check,
  add constraint station_latitude_deg_check check (latitude_deg between -90 and 90),
  -- Twelve monthly normals, for a station without days: its years are generated from them.
  add column normals jsonb;

alter table site
  add column latitude_deg   double precision check (latitude_deg between -90 and 90),
  add column longitude_deg  double precision check (longitude_deg between -180 and 180),
  add column elevation_m    double precision check (elevation_m between -430 and 9000),
  add column at_elevation   boolean not null default false,
  -- False while the site follows the station nearest to it.
  add column station_chosen boolean not null default false,
  add constraint site_place_whole check ((latitude_deg is null) = (longitude_deg is null) and (latitude_deg is null) = (elevation_m is null));

update site set station_chosen = station_id is not null;

alter table planter add column skyline jsonb;

create table live_station (
  id        int primary key default 1 check (id = 1),
  name      text not null check (length(name) between 1 and 80),
  latitude_deg  double precision not null check (latitude_deg between -90 and 90),
  longitude_deg double precision not null check (longitude_deg between -180 and 180),
  heard_at  timestamptz not null,
  air_c     double precision not null check (air_c between -90 and 60),
  humidity_pct double precision not null check (humidity_pct between 0 and 100),
  wind_ms   double precision not null check (wind_ms between 0 and 80)
);

create table live_day (
  day              date primary key,
  forecast         boolean not null,
  min_c            double precision not null check (min_c between -90 and 60),
  max_c            double precision not null check (max_c between -90 and 60),
  precipitation_mm double precision not null check (precipitation_mm between 0 and 2000),
  check (min_c <= max_c)
);
