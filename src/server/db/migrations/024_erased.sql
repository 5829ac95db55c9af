-- Who was erased is known again by a salted digest of the address alone.
create table erased (
  digest text primary key,
  at timestamptz not null
);
create index import_row_person on import_row (person_id) where person_id is not null;
