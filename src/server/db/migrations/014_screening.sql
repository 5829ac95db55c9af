-- What a person let through although it was screened out: the same is let through from then on.
create table screen_example (
  screen text not null,
  -- what decided it: a host, an address, folded words
  about text not null,
  trip_id uuid,
  user_id uuid references app_user,
  at timestamptz not null,
  primary key (screen, about)
);
