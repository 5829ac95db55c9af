-- Lists with the same headings come from the same sender: their columns are taken as the last time.
alter table import
  add column headings text not null default '',
  -- the list whose matching was taken over
  add column matching_from text;
create index import_headings on import (headings, created_at desc) where state = 'done';
