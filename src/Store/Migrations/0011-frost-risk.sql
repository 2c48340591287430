-- How often a freeze may follow the frost all-clear is the crew's choice.
alter table site add column frost_risk double precision not null default 0.1 check (frost_risk between 0.02 and 0.5);
