-- Hold or send: the rules of a mailbox in versions, and what was decided on each answer to us.
create table hold_rules (
  mailbox text not null references mailbox (name) on update cascade on delete cascade,
  no integer not null,
  rules text not null,
  -- the share of what could go alone that a person looks at all the same
  looked_at real not null check (looked_at between 0 and 1),
  saved_by uuid references app_user,
  saved_at timestamptz not null,
  primary key (mailbox, no)
);

create table reply_decision (
  -- what they wrote
  message_id uuid primary key references message on delete cascade,
  mailbox text not null,
  does text not null check (does in ('hold', 'send')),
  -- the version of the rules and the line that decided; null: no rule did
  no integer,
  line integer,
  says text not null,
  -- a rule could have let it go: what people do with such drafts is what is counted
  could_go boolean not null,
  -- it would have gone alone, and a person looks at it all the same
  looked_at boolean not null default false,
  kind text not null,
  objection text,
  at timestamptz not null,
  answer_id uuid references message on delete set null,
  outcome text check (outcome in ('unchanged', 'changed', 'other', 'none', 'taken back')),
  decided_by uuid references app_user,
  decided_at timestamptz
);
create index reply_decision_mailbox on reply_decision (mailbox, at desc);
create index reply_decision_answer on reply_decision (answer_id);
