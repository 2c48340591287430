-- What the crew decided. The database holds the rules that must never break.

create extension if not exists btree_gist;

create table site (
  id                 int primary key default 1 check (id = 1),
  name               text not null check (length(name) between 1 and 60),
  units              text not null check (units in ('Metric', 'UsCustomary')),
  money              text not null check (length(money) between 1 and 4),
  cover_threshold    double precision not null check (cover_threshold between 0.05 and 0.6),
  spare_share        double precision not null check (spare_share between 0 and 0.5),
  fresh_medium_cm    double precision not null check (fresh_medium_cm between 0 and 100),
  medium_bag_litres  double precision not null check (medium_bag_litres between 1 and 2000),
  medium_bag_price   numeric not null check (medium_bag_price between 0 and 100000),
  bulb_depth         text not null check (bulb_depth in ('ThreeTimesHeight', 'Deep')),
  wall_gap_cm        double precision not null check (wall_gap_cm between 0 and 10),
  bulb_gap_cm        double precision not null check (bulb_gap_cm between 0 and 20),
  version            int not null default 1,
  -- Rises with every change to the plan, so that what is computed from it can be kept until then.
  revision           bigint not null default 1
);

insert into site (name, units, money, cover_threshold, spare_share, fresh_medium_cm, medium_bag_litres, medium_bag_price, bulb_depth, wall_gap_cm, bulb_gap_cm)
values ('New site', 'Metric', '$', 0.15, 0.05, 20, 60, 18, 'ThreeTimesHeight', 2.5, 2);

create table area (
  id             text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  ordinal        int not null,
  name           text not null unique check (length(name) between 1 and 60),
  frost_pocket_c double precision not null check (frost_pocket_c between -2 and 6)
);

create table planter (
  id               text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  ordinal          int not null,
  area_id          text not null references area (id),
  name             text not null unique check (length(name) between 1 and 60),
  shape            text not null check (shape in ('Round', 'Trough', 'Basket', 'RectangularBed', 'OvalBed')),
  top_length_cm    double precision not null check (top_length_cm between 10 and 10000),
  top_width_cm     double precision not null check (top_width_cm between 10 and 10000),
  bottom_length_cm double precision not null check (bottom_length_cm between 0 and 10000),
  bottom_width_cm  double precision not null check (bottom_width_cm between 0 and 10000),
  depth_cm         double precision not null check (depth_cm between 10 and 200),
  rim_gap_cm       double precision not null check (rim_gap_cm between 0 and 20),
  exposure         text not null check (exposure in ('Shade', 'PartSun', 'FullSun')),
  watering         text not null check (watering in ('Hand', 'Drip', 'Rain')),
  viewed_from      text not null check (viewed_from in ('AllRound', 'OneSide')),
  wall             text not null check (wall in ('None', 'Terracotta', 'Glazed', 'Timber', 'Metal', 'Plastic', 'Concrete', 'Fibre')),
  wall_colour      text not null check (wall_colour ~ '^#[0-9a-f]{6}$'),
  note             text not null check (length(note) <= 2000),
  version          int not null default 1
);

create index planter_area on planter (area_id);

-- A plant is read and written whole; its figures are checked before they come here.
create table plant (
  id      text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  details jsonb not null
);

create table display (
  id         text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  planter_id text not null references planter (id),
  layer      text not null check (layer in ('Standing', 'Seasonal', 'Bulbs')),
  during     daterange not null check (not isempty(during) and not lower_inf(during) and not upper_inf(during)),
  version    int not null default 1,
  constraint display_layer_once exclude using gist (planter_id with =, layer with =, during with &&)
);

create index display_planter on display (planter_id);

create table display_item (
  display_id text not null references display (id) on delete cascade,
  ordinal    int not null,
  plant_id   text not null references plant (id),
  count      int not null check (count between 1 and 10000),
  depth_cm   double precision check (depth_cm between 1 and 150),
  primary key (display_id, ordinal)
);

create index display_item_plant on display_item (plant_id);

create table turn (
  id        text primary key check (id ~ '^[a-z0-9]+(-[a-z0-9]+)*$' and length(id) <= 60),
  name      text not null check (length(name) between 1 and 60),
  first_day date not null,
  last_day  date not null,
  version   int not null default 1,
  check (last_day between first_day and first_day + 60)
);

create function raise_revision() returns trigger language plpgsql as $$
begin
  update site set revision = revision + 1;
  return null;
end
$$;

create trigger area_revision after insert or update or delete on area for each statement execute function raise_revision();
create trigger planter_revision after insert or update or delete on planter for each statement execute function raise_revision();
create trigger plant_revision after insert or update or delete on plant for each statement execute function raise_revision();
create trigger display_revision after insert or update or delete on display for each statement execute function raise_revision();
create trigger display_item_revision after insert or update or delete on display_item for each statement execute function raise_revision();
create trigger turn_revision after insert or update or delete on turn for each statement execute function raise_revision();
