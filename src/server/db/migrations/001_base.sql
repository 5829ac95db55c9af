-- People who use Millrace, what is known, and how records are taken in.
create table app_user (
  id uuid primary key,
  email text not null unique check (email = lower(email)),
  name text not null,
  role text not null check (role in ('owner', 'builder', 'rep', 'reviewer', 'viewer')),
  title text not null default '',
  password_hash text not null,
  created_at timestamptz not null default now()
);
create table session (
  token_hash text primary key,
  user_id uuid not null references app_user on delete cascade,
  created_at timestamptz not null default now(),
  expires_at timestamptz not null,
  revoked_at timestamptz
);
create table sign_in_try (email text not null, at timestamptz not null default now());
create index sign_in_try_recent on sign_in_try (email, at);
create table api_token (
  token_hash text primary key,
  user_id uuid not null references app_user on delete cascade,
  name text not null,
  expires_at timestamptz not null,
  revoked_at timestamptz
);
create table setting (key text primary key, value jsonb not null);
create table audit (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  user_id uuid references app_user,
  what text not null,
  detail jsonb not null default '{}'
);

create table company (
  id uuid primary key,
  name text not null check (name <> ''),
  website text, phone text, city text, country text,
  employees integer, sites integer,
  heated_area double precision check (heated_area >= 0),
  main_crop text, controls text, controls_since integer,
  expansion boolean, all_year boolean, energy text, service_contract boolean, status text,
  custom jsonb not null default '{}',
  match_keys text[] not null default '{}',
  merged_into uuid references company,
  created_at timestamptz not null,
  check (merged_into is distinct from id)
);
create index company_keys on company using gin (match_keys) where merged_into is null;
create index company_page on company (created_at desc, id desc) where merged_into is null;

create table person (
  id uuid primary key,
  name text not null check (name <> ''),
  first_name text, last_name text, job_title text,
  email text check (email = lower(email)),
  phone text, language text, met_at text, status text,
  company_id uuid references company,
  owner_id uuid references app_user,
  custom jsonb not null default '{}',
  match_keys text[] not null default '{}',
  merged_into uuid references person,
  created_at timestamptz not null,
  check (merged_into is distinct from id)
);
create index person_keys on person using gin (match_keys) where merged_into is null;
create index person_page on person (created_at desc, id desc) where merged_into is null;
create index person_company on person (company_id);
create index person_email on person (email);

create table deal (
  id uuid primary key,
  title text not null,
  pipeline text not null,
  stage text not null,
  amount double precision,
  company_id uuid references company,
  person_id uuid references person,
  owner_id uuid references app_user,
  trip_id uuid,
  stage_since timestamptz not null,
  created_at timestamptz not null
);
create index deal_company on deal (company_id);
create index deal_person on deal (person_id);
create index deal_page on deal (created_at desc, id desc);

-- The only way a value gets on a record. Losing facts stay; a null value says "looked for and not found".
create table fact (
  id bigint generated always as identity primary key,
  record_kind text not null check (record_kind in ('person', 'company', 'deal')),
  record_id uuid not null,
  field text not null,
  value jsonb not null,
  source text not null,
  source_ref text not null,
  url text,
  quote text,
  confidence real not null check (confidence between 0 and 1),
  observed_at timestamptz not null,
  trip_id uuid,
  mark text,
  user_id uuid references app_user
);
create index fact_record on fact (record_id, field);

create table timeline (
  id bigint generated always as identity primary key,
  record_kind text not null,
  record_id uuid not null,
  at timestamptz not null,
  kind text not null,
  says text not null,
  detail jsonb not null default '{}'
);
create index timeline_record on timeline (record_id, at desc, id desc);

create table pair (
  id uuid primary key,
  kind text not null check (kind in ('person', 'company')),
  a_id uuid not null,
  b_id uuid not null check (b_id <> a_id),
  confidence real not null,
  evidence jsonb not null,
  state text not null default 'open' check (state in ('open', 'same', 'different')),
  trip_id uuid,
  decided_by uuid references app_user,
  decided_at timestamptz,
  later_until timestamptz,
  created_at timestamptz not null,
  check ((state = 'open') = (decided_at is null))
);
create index pair_open on pair (created_at) where state = 'open';

create table merge (
  id bigint generated always as identity primary key,
  kind text not null check (kind in ('person', 'company')),
  from_id uuid not null,
  into_id uuid not null check (into_id <> from_id),
  confidence real not null,
  evidence jsonb not null,
  by text not null,
  -- what moved, so that it can move back: ids of facts, people, deals, trips
  moved jsonb not null,
  at timestamptz not null,
  undone_at timestamptz
);
create unique index merge_once on merge (from_id) where undone_at is null;

create table import (
  id uuid primary key,
  file_name text not null,
  label text not null,
  bytes bytea not null,
  matching jsonb not null,
  default_country text not null,
  flow_id uuid,
  state text not null default 'looked at' check (state in ('looked at', 'queued', 'running', 'done', 'failed')),
  total integer not null,
  done_rows integer not null default 0,
  counts jsonb not null default '{}',
  problem text,
  lease_until timestamptz,
  created_by uuid references app_user,
  created_at timestamptz not null,
  finished_at timestamptz
);
create table import_row (
  import_id uuid not null references import on delete cascade,
  row integer not null,
  kind text not null check (kind in ('new', 'known', 'perhaps', 'refused')),
  why text not null,
  person_id uuid,
  cells jsonb,
  primary key (import_id, row)
);
