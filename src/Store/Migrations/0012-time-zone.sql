-- The zone by whose clock a day of the site begins; null for that of the machine.
alter table site add column time_zone text;
