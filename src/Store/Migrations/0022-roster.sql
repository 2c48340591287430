-- Who and what there is to do the work with, as one document of each site; addresses of calendars; the wind that is
-- forecast.

create table crew_roster (
  site_id uuid primary key default meadow_site() references site (id),
  details jsonb not null,
  version bigint not null default 0
);

alter table crew_roster enable row level security;
alter table crew_roster force row level security;
create policy crew_roster_of_site on crew_roster using (site_id = (select meadow_site()));
create trigger crew_roster_version before insert or update on crew_roster for each row execute function next_version();

alter table pass drop constraint pass_kind_check,
  add constraint pass_kind_check check (kind in ('Invitation', 'Phone', 'FirstOwner', 'Calendar'));

alter table live_day add column wind_ms double precision check (wind_ms between 0 and 80);
