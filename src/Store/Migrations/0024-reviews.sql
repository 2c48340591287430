-- What was found on review walks.

alter table observation add column rating int check (rating between 1 and 5),
  add column verdict text check (verdict in ('Keep', 'Repeat', 'Change', 'Drop')),
  add column in_colour boolean,
  add column cover_pct int check (cover_pct between 0 and 100),
  add constraint observation_review check ((rating is null) = (kind <> 'Reviewed') and (rating is null) = (verdict is null)),
  drop constraint observation_kind_check,
  add constraint observation_kind_check check (kind in ('FirstColour', 'Peak', 'Over', 'Died', 'Note', 'DidWell', 'DidPoorly', 'Misnamed',
    'Full', 'Eaten', 'Stolen', 'Broken', 'Withdrawn', 'Reviewed'));
