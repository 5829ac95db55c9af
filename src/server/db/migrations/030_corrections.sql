-- What people have corrected: words that mean something else than was understood. They go with the mail they stand in.
create table reply_example (
  message_id uuid primary key references message on delete cascade,
  words text not null,
  kind text not null,
  objection text,
  was_kind text not null,
  was_objection text,
  made_by uuid references app_user,
  at timestamptz not null
);
create index reply_example_at on reply_example (at desc);
create index message_taught on message ((reading ->> 'taughtBy')) where reading ->> 'taughtBy' is not null;
