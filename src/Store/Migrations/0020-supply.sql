-- Suppliers, what they offer, orders as they were sent, deliveries as they were inspected, credits, the holding area, materials, budgets,
-- and every change of what is at hand.

alter table upload_draft drop constraint upload_draft_kind_check,
  add constraint upload_draft_kind_check check (kind in ('palette', 'map', 'plan', 'planters', 'displays', 'turns', 'stock', 'prices'));

alter table lot add column form text check (length(form) between 1 and 400),
  drop constraint lot_state_check,
  add constraint lot_state_check check (state in ('Waiting', 'Kept', 'HeeledIn', 'Overwintering', 'Forced', 'Stored', 'Quarantine', 'Raised'));

-- Suppliers and the like are kept as the documents that they are; what is looked for stands beside.
create table supplier (
  site_id uuid not null default meadow_site() references site (id),
  id      text not null check (length(id) between 1 and 60),
  details jsonb not null,
  -- Which heading of their price list means what, as it was chosen last; null before one was brought in.
  columns jsonb,
  version bigint not null default 0,
  primary key (site_id, id)
);

create table offer (
  site_id     uuid not null default meadow_site() references site (id),
  supplier_id text not null,
  ordinal     int not null,
  plant_id    text not null,
  details     jsonb not null,
  primary key (site_id, supplier_id, ordinal),
  foreign key (site_id, supplier_id) references supplier (site_id, id) on delete cascade
);

create index offer_plant on offer (site_id, plant_id);

-- What a planner has decided of a turn's basket, by kind.
create table supply_choice (
  site_id uuid not null default meadow_site() references site (id),
  id      text not null check (length(id) between 1 and 60),
  details jsonb not null,
  version bigint not null default 0,
  primary key (site_id, id)
);

create table purchase_order (
  site_id uuid not null default meadow_site() references site (id),
  id      uuid not null,
  number  int check (number > 0),
  stage   text not null check (stage in ('Draft', 'Sent', 'Confirmed', 'Closed', 'Cancelled')),
  details jsonb not null,
  made_at timestamptz not null default now(),
  version bigint not null default 0,
  primary key (site_id, id),
  unique (site_id, number),
  check (number is not null or stage in ('Draft', 'Cancelled'))
);

-- What was sent is a commitment: its lines and terms never change.
create function keep_sent_order() returns trigger language plpgsql as $$
begin
  if tg_op = 'DELETE' then
    if old.stage <> 'Draft' then
      raise exception 'an order that was sent is kept';
    end if;
    return old;
  end if;
  if old.stage <> 'Draft'
    and (new.number, new.details -> 'lines', new.details -> 'supplier') is distinct from (old.number, old.details -> 'lines', old.details -> 'supplier')
  then
    raise exception 'an order that was sent keeps its lines and terms';
  end if;
  return new;
end
$$;

create trigger purchase_order_kept before update or delete on purchase_order for each row execute function keep_sent_order();

create table receipt (
  site_id     uuid not null default meadow_site() references site (id),
  id          uuid not null,
  order_id    uuid not null,
  details     jsonb not null,
  person_id   uuid references person (id),
  -- What the person was called when it was written down.
  by          text not null default '' check (length(by) <= 400),
  recorded_at timestamptz not null default now(),
  primary key (site_id, id),
  foreign key (site_id, order_id) references purchase_order (site_id, id)
);

create trigger receipt_append_only before update or delete or truncate on receipt for each statement execute function refuse_change();

create table receipt_photo (
  site_id    uuid not null default meadow_site() references site (id),
  id         uuid not null,
  receipt_id uuid not null,
  jpeg       bytea not null,
  thumb      bytea not null,
  primary key (site_id, id),
  foreign key (site_id, receipt_id) references receipt (site_id, id)
);

create index receipt_photo_receipt on receipt_photo (site_id, receipt_id);

create table credit_claim (
  site_id  uuid not null default meadow_site() references site (id),
  id       uuid not null,
  order_id uuid not null,
  details  jsonb not null,
  version  bigint not null default 0,
  primary key (site_id, id),
  foreign key (site_id, order_id) references purchase_order (site_id, id)
);

create table holding_place (
  site_id uuid not null default meadow_site() references site (id),
  id      text not null check (length(id) between 1 and 60),
  details jsonb not null,
  version bigint not null default 0,
  primary key (site_id, id)
);

create table material (
  site_id uuid not null default meadow_site() references site (id),
  id      text not null check (length(id) between 1 and 60),
  details jsonb not null,
  version bigint not null default 0,
  primary key (site_id, id)
);

create table material_movement (
  site_id     uuid not null default meadow_site() references site (id),
  id          uuid not null,
  material_id text not null,
  details     jsonb not null,
  person_id   uuid references person (id),
  recorded_at timestamptz not null default now(),
  primary key (site_id, id),
  foreign key (site_id, material_id) references material (site_id, id)
);

create trigger material_movement_append_only before update or delete or truncate on material_movement
  for each statement execute function refuse_change();

create table budget (
  site_id uuid not null default meadow_site() references site (id),
  id      text not null check (length(id) between 1 and 60),
  details jsonb not null,
  version bigint not null default 0,
  primary key (site_id, id)
);

-- Every change of what is at hand, whichever way it was made: what came less what went is what is there.
create table lot_movement (
  site_id     uuid not null default meadow_site() references site (id),
  id          bigint generated always as identity,
  lot_id      text not null,
  plant_id    text not null,
  day         date not null,
  change      int not null check (change <> 0),
  kind        text not null check (kind in ('Received', 'Kept', 'Planted', 'Lost', 'Composted', 'Corrected')),
  recorded_at timestamptz not null default now(),
  primary key (site_id, id)
);

create index lot_movement_plant on lot_movement (site_id, plant_id);

do $$
declare
  part text;
begin
  foreach part in array array['supplier', 'offer', 'supply_choice', 'purchase_order', 'receipt', 'receipt_photo', 'credit_claim', 'holding_place',
    'material', 'material_movement', 'budget', 'lot_movement']
  loop
    execute format('alter table %I enable row level security', part);
    execute format('alter table %I force row level security', part);
    execute format('create policy %I on %I using (site_id = (select meadow_site()))', part || '_of_site', part);
  end loop;
  foreach part in array array['supplier', 'supply_choice', 'purchase_order', 'credit_claim', 'holding_place', 'material', 'budget'] loop
    execute format('create trigger %I before insert or update on %I for each row execute function next_version()', part || '_version', part);
  end loop;
end
$$;

-- Whoever changes a lot may say why and of which day; where nobody does, plants out of a planter and
-- those raised here were kept, and all else was corrected.
create function note_lot_movement() returns trigger language plpgsql as $$
declare
  said  text := nullif(current_setting('meadow.movement', true), '');
  given date := coalesce(nullif(current_setting('meadow.day', true), '')::date, current_date);
begin
  if tg_op <> 'INSERT' and (tg_op = 'DELETE' or old.plant_id <> new.plant_id) and old.count > 0 then
    insert into lot_movement (lot_id, plant_id, day, change, kind) values (old.id, old.plant_id, given, -old.count, 'Corrected');
  end if;
  if tg_op = 'INSERT' or (tg_op = 'UPDATE' and old.plant_id <> new.plant_id) then
    if new.count > 0 then
      insert into lot_movement (lot_id, plant_id, day, change, kind)
      values (new.id, new.plant_id, given, new.count, coalesce(said, case when new.from_planter_id is null and new.state <> 'Raised' then 'Corrected' else 'Kept' end));
    end if;
  elsif tg_op = 'UPDATE' and new.count <> old.count then
    insert into lot_movement (lot_id, plant_id, day, change, kind)
    values (new.id, new.plant_id, given, new.count - old.count, coalesce(said, 'Corrected'));
  end if;
  return null;
end
$$;

create trigger lot_movement_noted after insert or update or delete on lot for each row execute function note_lot_movement();

create trigger lot_movement_append_only before update or delete or truncate on lot_movement for each statement execute function refuse_change();

-- What is at hand already is where the record begins.
do $$
declare
  of_site uuid;
begin
  perform set_config('meadow.every', 'on', true);
  for of_site in select id from site loop
    perform set_config('meadow.site', of_site::text, true);
    insert into lot_movement (lot_id, plant_id, day, change, kind)
    select id, plant_id, since, count, case when from_planter_id is null then 'Corrected' else 'Kept' end from lot where count > 0;
  end loop;
  perform set_config('meadow.every', '', true);
  perform set_config('meadow.site', '', true);
end
$$;
