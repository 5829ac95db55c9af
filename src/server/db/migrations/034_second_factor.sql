-- A second factor of an account: codes that a phone makes (RFC 6238).
create table second_factor (
  user_id uuid primary key references app_user(id) on delete cascade,
  -- sealed
  secret text not null,
  -- null: begun, and no code has been shown yet
  confirmed_at timestamptz,
  -- the half-minute of the last code that was taken: none is taken twice
  last_step bigint not null default 0,
  -- digests of codes for the day the phone is lost; each is taken once
  recovery text[] not null default '{}'
);
