-- The form in which a line's plants are bought; null for the usual one.
alter table display_item add column form text check (length(form) between 1 and 60);

-- The log keeps what a plant was called when it was written down: a name that is corrected later does not rewrite it.
alter table observation add column plant_name text check (length(plant_name) between 1 and 400),
  drop constraint observation_kind_check,
  add constraint observation_kind_check check (kind in ('FirstColour', 'Peak', 'Over', 'Died', 'Note', 'DidWell', 'DidPoorly', 'Misnamed'));

alter table observation disable trigger observation_append_only;

update observation o set plant_name = p.details ->> 'commonName' from plant p where p.id = o.plant_id;

alter table observation enable trigger observation_append_only;
