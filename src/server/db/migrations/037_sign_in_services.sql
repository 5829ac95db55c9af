-- Services that people or mailboxes sign in by (OpenID Connect), what mailboxes were given there, and who came in by them.
create table sign_in_service (
  name text primary key,
  body jsonb not null,
  -- sealed
  secret text,
  changed_at timestamptz not null
);
create table sign_in_grant (
  id uuid primary key,
  service text not null references sign_in_service(name) on delete cascade,
  account text not null,
  -- sealed: what renews itself, and what opens the mailbox until it ends
  secret text not null,
  fresh_until timestamptz not null,
  since timestamptz not null,
  -- null: it opens
  problem text,
  unique (service, account)
);
create table sign_in_link (
  service text not null references sign_in_service(name) on delete cascade,
  subject text not null,
  user_id uuid not null references app_user(id) on delete cascade,
  primary key (service, subject)
);
create index sign_in_link_user on sign_in_link (user_id);
