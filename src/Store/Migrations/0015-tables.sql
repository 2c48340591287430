-- Tables of planters wait to be looked at as palette sheets and plans do.
alter table upload_draft drop constraint upload_draft_kind_check,
  add constraint upload_draft_kind_check check (kind in ('palette', 'map', 'plan', 'planters'));
