-- Doors of one's own: forms and whatever else posts entries. What came in is kept as it came, before anything is made of it.
create table intake (
  id uuid primary key,
  kind text not null check (kind in ('form', 'webhook')),
  name text not null unique check (name <> ''),
  -- its public address
  slug text not null unique check (slug ~ '^[a-z0-9][a-z0-9-]*$'),
  is_on boolean not null default true,
  body jsonb not null,
  -- sealed: what senders sign with
  secret text,
  created_by uuid references app_user,
  created_at timestamptz not null,
  last_at timestamptz
);
create table intake_entry (
  id uuid primary key,
  intake_id uuid not null references intake on delete cascade,
  no integer not null,
  -- the same key is the same entry, however often it is sent
  key text not null,
  received_at timestamptz not null,
  raw jsonb not null,
  answers jsonb not null default '{}',
  state text not null check (state in ('taken', 'refused')),
  why text not null,
  person_id uuid references person,
  unique (intake_id, key),
  unique (intake_id, no)
);
create index intake_entry_page on intake_entry (intake_id, received_at desc);
create table stored_file (
  id uuid primary key,
  entry_id uuid not null references intake_entry on delete cascade,
  question text not null,
  name text not null,
  kind text not null,
  size integer not null,
  bytes bytea not null,
  created_at timestamptz not null
);
create index stored_file_entry on stored_file (entry_id);
-- Who sent how often, by a digest of the sender's address. Real time.
create table intake_try (intake_id uuid not null references intake on delete cascade, sender text not null, at timestamptz not null default now());
create index intake_try_recent on intake_try (intake_id, sender, at);
