-- Lookup services described by data: how they are asked, and where their answers stand.
create table provider (
  name text primary key check (name <> ''),
  body jsonb not null,
  -- sealed; null: it needs none
  secret text,
  -- how the last try went
  checked jsonb,
  changed_at timestamptz not null
);
