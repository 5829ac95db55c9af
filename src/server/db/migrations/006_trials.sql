-- What a trial may spend, and whether it reads everything again.
alter table trial add column limit_micro bigint not null default 2000000 check (limit_micro >= 0);
alter table trial add column afresh boolean not null default false;

-- What trials have read outside, to be answered with again while what was asked is the same.
create table trial_reading (
  flow_id uuid not null references flow on delete cascade,
  -- digest of the record and of all that was asked
  key text not null,
  answer jsonb not null,
  read_at timestamptz not null,
  primary key (flow_id, key)
);
