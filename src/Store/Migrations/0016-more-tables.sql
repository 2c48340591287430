-- Tables of displays, turns and stock wait to be looked at, as those of planters do.
alter table upload_draft drop constraint upload_draft_kind_check,
  add constraint upload_draft_kind_check check (kind in ('palette', 'map', 'plan', 'planters', 'displays', 'turns', 'stock'));
