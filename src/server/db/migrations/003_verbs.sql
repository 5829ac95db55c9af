-- What the verbs tell, hand over, gather, wait for, move and the clock need.
create table webhook (
  name text primary key,
  url text not null,
  -- sealed with the workspace's key: never stored in clear, never shown again
  secret text not null,
  created_at timestamptz not null
);
create table notice (
  id uuid primary key,
  user_id uuid not null references app_user on delete cascade,
  text text not null,
  trip_id uuid references trip on delete set null,
  person_id uuid references person,
  at timestamptz not null,
  read_at timestamptz
);
create index notice_open on notice (user_id, at) where read_at is null;

alter table effect drop constraint effect_kind_check;
alter table effect add check (kind in ('send', 'look up', 'hand over', 'tell'));
alter table effect add column payload jsonb;
alter table effect add check (kind not in ('hand over', 'tell') or (payload is not null and due_at is not null));
create index effect_out_due on effect (due_at) where kind in ('hand over', 'tell') and state in ('planned', 'started');

-- trips that go on together, and trips that look again when something changes
create index trip_batch on trip (version_id, at) where state = 'waiting' and state_detail->>'on' = 'batch';
create index trip_change on trip (person_id) where state = 'waiting' and state_detail->>'on' = 'change';

-- when a flow's clock next looks for records that are due
create table flow_clock (
  flow_id uuid primary key references flow on delete cascade,
  next_at timestamptz not null
);
create index message_thread_in on message (thread_id, at) where direction = 'in';
