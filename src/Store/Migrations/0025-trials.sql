-- Trials of kinds over planters, each as one document.

create table trial (
  site_id uuid not null default meadow_site() references site (id),
  id uuid not null,
  details jsonb not null,
  made_at timestamptz not null default now(),
  primary key (site_id, id)
);

alter table trial enable row level security;
alter table trial force row level security;
create policy trial_of_site on trial using (site_id = (select meadow_site()));
