-- People come by an invitation, and go without being forgotten.
alter table app_user add column ended_at timestamptz;
create table invite (
  id uuid primary key,
  -- only the digest is kept: reading the database lets nobody in
  code_hash text not null unique,
  -- empty: whoever opens it says their own
  email text not null check (email = lower(email)),
  name text not null,
  role text not null check (role in ('owner', 'builder', 'rep', 'reviewer', 'viewer')),
  title text not null default '',
  invited_by uuid references app_user,
  created_at timestamptz not null,
  expires_at timestamptz not null,
  ended_at timestamptz
);
create unique index invite_open on invite (email) where ended_at is null;
create table away (
  user_id uuid not null references app_user on delete cascade,
  from_day date not null,
  to_day date not null check (to_day >= from_day),
  primary key (user_id, from_day)
);
alter table team_member add column weight integer not null default 1 check (weight between 1 and 9);

-- What a token may do, at most; its maker's role still counts.
alter table api_token add column id uuid not null default gen_random_uuid();
alter table api_token add column scope text not null default 'all' check (scope in ('read', 'records', 'flows', 'all'));
alter table api_token add column created_at timestamptz not null default now();
alter table api_token add column used_at timestamptz;

-- A mailbox may have its own way out; without one its mails go by the relay of this installation.
alter table mailbox add column reply_to text;
alter table mailbox add column route jsonb;
alter table mailbox add column route_secret text;
alter table mailbox add column checked jsonb;

-- What a stage was called, or where its deals went: live flows go on naming it as it was.
create table stage_alias (
  pipeline text not null,
  was text not null,
  name text not null,
  primary key (pipeline, was)
);
