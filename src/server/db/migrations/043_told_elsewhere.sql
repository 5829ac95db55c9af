-- How each person wants to hear, away from the desk, that something waits for them.
create table telling (
  user_id uuid primary key references app_user on delete cascade,
  by_mail boolean not null default false,
  webhook text references webhook on update cascade on delete set null,
  -- minutes since midnight in the workspace's zone, on working days: at other times nobody is told
  from_minute integer not null default 480 check (from_minute between 0 and 1439),
  to_minute integer not null default 1080 check (to_minute between 1 and 1440),
  told_at timestamptz not null,
  -- what lay before them then: nothing of it is told again
  told text[] not null,
  looked_at timestamptz not null,
  check (from_minute < to_minute)
);
