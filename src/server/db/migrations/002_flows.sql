-- Flows, their trips, and what leaves the house.
create table library_item (
  kind text not null check (kind in ('scorecard', 'template', 'plan', 'chain', 'pipeline', 'intake')),
  name text not null,
  body jsonb not null,
  primary key (kind, name)
);
create table team (name text primary key, turn bigint not null default 0);
create table team_member (
  team text not null references team on delete cascade,
  user_id uuid not null references app_user on delete cascade,
  position integer not null,
  primary key (team, user_id),
  unique (team, position)
);
create table mailbox (
  name text primary key,
  address text not null,
  display_name text not null,
  zone text not null,
  daily_limit integer not null check (daily_limit > 0),
  person_gap_days integer not null default 2 check (person_gap_days >= 0)
);
create table do_not_contact (email text primary key check (email = lower(email)), why text not null, at timestamptz not null);

create table flow (
  id uuid primary key,
  name text not null unique,
  draft_text text not null,
  draft_no integer not null default 1,
  live_version_id uuid,
  updated_at timestamptz not null,
  created_at timestamptz not null
);
create table flow_version (
  id uuid primary key,
  flow_id uuid not null references flow on delete cascade,
  no integer not null,
  text text not null,
  library jsonb not null,
  released_by uuid references app_user,
  released_at timestamptz not null,
  unique (flow_id, no)
);
alter table flow add foreign key (live_version_id) references flow_version;

create table trial (
  id uuid primary key,
  flow_id uuid not null references flow on delete cascade,
  text text not null,
  library jsonb not null,
  created_by uuid references app_user,
  created_at timestamptz not null
);

create table trip (
  id uuid primary key,
  flow_id uuid not null references flow on delete cascade,
  version_id uuid references flow_version,
  trial_id uuid references trial on delete cascade,
  person_id uuid not null references person,
  intake_key text not null,
  state text not null check (state in ('ready', 'waiting', 'asking', 'following', 'stuck', 'done', 'stopped')),
  state_detail jsonb not null default '{}',
  at integer not null default 0,
  part integer not null default 0,
  vars jsonb not null default '{}',
  seq integer not null default 0,
  tries integer not null default 0,
  deal_id uuid,
  -- when the worker has something to do; null: nothing until an event comes
  due_at timestamptz,
  lease_by text,
  lease_until timestamptz,
  fence bigint not null default 0,
  created_at timestamptz not null,
  ended_at timestamptz,
  check ((version_id is null) <> (trial_id is null)),
  check ((state in ('done', 'stopped')) = (ended_at is not null))
) with (fillfactor = 80);
-- one record is in one trip per flow and intake key
create unique index trip_once on trip (flow_id, intake_key) where trial_id is null;
create index trip_due on trip (due_at, id) where due_at is not null;
create index trip_person on trip (person_id);
create index trip_flow_state on trip (flow_id, state);
create index trip_trial on trip (trial_id) where trial_id is not null;

create table trip_event (
  id bigint generated always as identity primary key,
  trip_id uuid not null references trip on delete cascade,
  event jsonb not null,
  at timestamptz not null
);
create index trip_event_trip on trip_event (trip_id, id);

-- facts of a trial: kept beside the record, never on it
create table trial_fact (
  trip_id uuid not null references trip on delete cascade,
  record_kind text not null,
  record_id uuid not null,
  field text not null,
  value jsonb not null,
  source text not null,
  source_ref text not null,
  url text,
  quote text,
  confidence real not null,
  observed_at timestamptz not null
);
create index trial_fact_trip on trial_fact (trip_id);

create table journal (
  trip_id uuid not null references trip on delete cascade,
  seq integer not null,
  mark text not null,
  verb text not null,
  outcome text not null,
  says text not null,
  detail jsonb not null,
  cost_micro bigint not null default 0 check (cost_micro >= 0),
  took_ms integer not null default 0,
  at timestamptz not null,
  primary key (trip_id, seq)
);

create table thread (
  id uuid primary key,
  person_id uuid not null references person,
  trip_id uuid references trip on delete set null,
  mailbox text not null references mailbox,
  subject text not null,
  state text not null default 'open' check (state in ('open', 'answered', 'paused', 'ended')),
  paused_until timestamptz,
  created_at timestamptz not null
);
create index thread_person on thread (person_id);

create table message (
  id uuid primary key,
  thread_id uuid references thread,
  trip_id uuid references trip on delete set null,
  person_id uuid references person,
  direction text not null check (direction in ('out', 'in')),
  template text,
  touch integer,
  subject text not null,
  body text not null,
  personal_line text,
  facts jsonb not null default '[]',
  checks jsonb not null default '[]',
  state text not null check (state in ('written', 'approved', 'planned', 'sent', 'failed', 'in doubt', 'dropped', 'refused', 'received')),
  rfc_id text unique,
  in_reply_to text,
  refs text[] not null default '{}',
  from_address text,
  to_address text,
  -- the exact bytes that were or will be handed over
  raw bytea,
  reading jsonb,
  approved_by uuid references app_user,
  -- for answers that want a person: when one took care of it
  handled_at timestamptz,
  at timestamptz not null
);
create index message_unhandled on message (at) where state = 'received' and handled_at is null;
create index message_thread on message (thread_id, at);
create index message_person on message (person_id, at desc);
create index message_template on message (template, at desc) where direction = 'out';
create index message_page on message (at desc, id desc);

create table review (
  id uuid primary key,
  trip_id uuid not null references trip on delete cascade,
  message_id uuid not null references message,
  who text not null,
  state text not null default 'open' check (state in ('open', 'approved', 'refused', 'closed')),
  due_at timestamptz,
  later_until timestamptz,
  told text,
  decided_by uuid references app_user,
  decided_at timestamptz,
  created_at timestamptz not null,
  check ((state = 'open') = (decided_at is null))
);
create index review_open on review (created_at) where state = 'open';

-- The ledger of everything done to the outside.
create table effect (
  id uuid primary key,
  kind text not null check (kind in ('send', 'look up')),
  -- the same effect planned twice is the same row
  key text not null unique,
  state text not null check (state in ('planned', 'started', 'done', 'failed', 'in doubt', 'dropped')),
  trip_id uuid references trip on delete set null,
  person_id uuid references person,
  message_id uuid references message,
  mailbox text references mailbox,
  due_at timestamptz,
  attempts integer not null default 0,
  lease_by text,
  lease_until timestamptz,
  fence bigint not null default 0,
  answer jsonb,
  cost_micro bigint not null default 0 check (cost_micro >= 0),
  says text,
  created_at timestamptz not null,
  started_at timestamptz,
  ended_at timestamptz,
  check (kind <> 'send' or (message_id is not null and mailbox is not null and due_at is not null))
);
-- at least two minutes apart per mailbox: slots lie on a two-minute grid and are taken once
create unique index effect_slot on effect (mailbox, due_at) where kind = 'send' and state in ('planned', 'started', 'done', 'in doubt');
create index effect_due on effect (due_at) where kind = 'send' and state = 'planned';
create index effect_started on effect (lease_until) where state = 'started';
create index effect_message on effect (message_id);
create index effect_person on effect (person_id, due_at);

create table page (
  url text primary key,
  status integer not null,
  text text not null,
  links jsonb not null,
  fetched_at timestamptz not null
);
