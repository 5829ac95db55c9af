-- What research has seen about a record, to tell what is new the next time.
create table research_seen (
  record_id uuid not null,
  -- the address; of a profile its words too, since a changed one is new
  document text not null,
  first_seen_at timestamptz not null,
  primary key (record_id, document)
);
