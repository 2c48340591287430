-- Plants at hand may go to another site.
alter table lot_movement drop constraint lot_movement_kind_check;

alter table lot_movement add constraint lot_movement_kind_check
  check (kind in ('Received', 'Kept', 'Planted', 'Lost', 'Composted', 'Moved', 'Corrected'));
