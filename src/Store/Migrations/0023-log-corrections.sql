-- What else happens to plants, how many, and entries that correct others; the first stays readable. Forecasts are kept as they were made, so
-- that afterwards it can be said how good they were.

alter table observation add column count int check (count between 1 and 10000),
  add column corrects uuid,
  drop constraint observation_kind_check,
  add constraint observation_kind_check check (kind in ('FirstColour', 'Peak', 'Over', 'Died', 'Note', 'DidWell', 'DidPoorly', 'Misnamed',
    'Full', 'Eaten', 'Stolen', 'Broken', 'Withdrawn'));

create index observation_corrects on observation (site_id, corrects) where corrects is not null;

create table forecast_made (
  site_id          uuid not null default meadow_site() references site (id),
  made_on          date not null,
  day              date not null check (day >= made_on),
  min_c            double precision not null,
  max_c            double precision not null,
  precipitation_mm double precision not null,
  wind_ms          double precision,
  primary key (site_id, made_on, day)
);

alter table forecast_made enable row level security;
alter table forecast_made force row level security;
create policy forecast_made_of_site on forecast_made using (site_id = (select meadow_site()));
