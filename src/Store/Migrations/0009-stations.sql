-- A station taken out is kept with its days, so that it can be put back.
alter table station add column removed_at timestamptz;
