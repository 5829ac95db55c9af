-- Holding flows back, budgets, and connections that are paced and shut off while they fail.
alter table flow add column paused_at timestamptz;
-- why a trip is not worked off: null, 'paused' (its flow rests) or 'first' (beyond the first ones of a release)
alter table trip add column hold text check (hold in ('paused', 'first'));
drop index trip_due;
create index trip_due on trip (due_at, id) where due_at is not null and hold is null;
create index trip_held on trip (flow_id) where hold is not null and ended_at is null;
create index trip_version on trip (version_id, created_at);

-- what a version was released with
alter table flow_version add column first_n integer check (first_n > 0);
alter table flow_version add column daily_limit integer check (daily_limit > 0);
alter table flow_version add column day_budget_micro bigint check (day_budget_micro >= 0);
alter table flow_version add column start_at timestamptz;
alter table flow_version add column forecast jsonb;

-- money of one budget on one day: reserved before a paid call, spent after it
create table spend (
  budget text not null,
  day date not null,
  reserved_micro bigint not null default 0 check (reserved_micro >= 0),
  spent_micro bigint not null default 0 check (spent_micro >= 0),
  primary key (budget, day)
);
-- what a paid question has set aside, in which budgets and on which day: it is given back there, whoever asks again and when
alter table effect add column reserved jsonb;

-- one row for each outside connection, shared by all workers
create table connection_state (
  name text primary key,
  failures integer not null default 0,
  -- real time: shut until then
  shut_until timestamptz,
  -- real time: the next call may be made then
  next_at timestamptz
);
