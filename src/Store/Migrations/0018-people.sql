-- People, what they may do at which site, how they sign in, and what was signed in from where.

create table person (
  id             uuid primary key,
  name           text not null check (length(name) between 1 and 400),
  -- What is typed to sign in, as typed and as compared.
  sign_in        text not null check (length(sign_in) between 1 and 600),
  sign_in_key    text not null unique,
  password_hash  text,
  security_stamp text not null,
  lockout_end    timestamptz,
  failed_tries   int not null default 0,
  recovery_codes text not null default '',
  -- Signs in with one tap where the app is served to its own machine alone.
  taps           boolean not null default false,
  -- Sees to the installation: adds sites.
  is_steward     boolean not null default false,
  language       text check (language in ('en', 'es')),
  units          text check (units in ('Metric', 'UsCustomary')),
  -- Who the organisation's own sign-in says it is.
  provider_key   text unique,
  made_at        timestamptz not null default now(),
  left_at        timestamptz
);

create table membership (
  site_id   uuid not null references site (id),
  person_id uuid not null references person (id),
  role      text not null check (role in ('Guest', 'Crew', 'Lead', 'Planner', 'Owner')),
  since     timestamptz not null default now(),
  primary key (site_id, person_id)
);

create index membership_person on membership (person_id);

alter table membership enable row level security;
alter table membership force row level security;
create policy membership_of_site on membership using (site_id = (select meadow_site()) or (select meadow_every()));

create table passkey (
  id        bytea primary key,
  person_id uuid not null references person (id),
  name      text not null check (length(name) between 1 and 400),
  details   jsonb not null,
  made_at   timestamptz not null default now()
);

create index passkey_person on passkey (person_id);

-- A sign-in that lasts. What the browser holds names it; ended here, it is over everywhere.
create table session (
  id        uuid primary key,
  person_id uuid not null references person (id),
  -- A phone that somebody else signed in is good at their site alone.
  site_id   uuid references site (id),
  device    text not null check (length(device) <= 400),
  made_at   timestamptz not null default now(),
  seen_at   timestamptz not null default now(),
  ended_at  timestamptz
);

create index session_person on session (person_id) where ended_at is null;

-- Codes that are good once and for a while: an invitation to a site, a phone's sign-in, the first owner's. Only their hash is kept.
create table pass (
  code_hash  bytea primary key,
  kind       text not null check (kind in ('Invitation', 'Phone', 'FirstOwner')),
  site_id    uuid references site (id),
  -- Whose phone it is.
  person_id  uuid references person (id),
  role       text check (role in ('Guest', 'Crew', 'Lead', 'Planner', 'Owner')),
  made_by    uuid references person (id),
  made_at    timestamptz not null default now(),
  good_until timestamptz,
  used_at    timestamptz,
  check (kind <> 'Invitation' or (site_id is not null and role is not null)),
  check (kind <> 'Phone' or person_id is not null)
);

-- Who signed in, from what, and who was refused. Written once.
create table sign_in_record (
  id        uuid primary key,
  at        timestamptz not null default clock_timestamp(),
  person_id uuid references person (id),
  what      text not null check (length(what) <= 60),
  device    text not null default '' check (length(device) <= 400)
);

create index sign_in_record_at on sign_in_record (at desc);
create index sign_in_record_person on sign_in_record (person_id, at desc);
create trigger sign_in_record_append_only before update or delete or truncate on sign_in_record
  for each statement execute function refuse_change();

-- Work whose answer is worded in its asker's own units; null for those of the site.
alter table job add column units text check (units in ('Metric', 'UsCustomary'));

-- The log's line belongs to the person who wrote it, who may since have left; what it is signed with stays as it was written.
alter table observation add column person_id uuid references person (id);
