-- The book of answers: agreed answers are named things like others; each use of one is kept, to be counted by what followed.
alter table library_item drop constraint library_item_kind_check,
  add constraint library_item_kind_check check (kind in ('scorecard', 'template', 'plan', 'chain', 'pipeline', 'intake', 'answer'));

create table answer_use (
  message_id uuid not null references message on delete cascade,
  item_id uuid not null references library_item (id) on delete cascade,
  -- the version whose words were taken
  no integer not null,
  about text not null,
  at timestamptz not null,
  primary key (message_id, item_id)
);
create index answer_use_item on answer_use (item_id);

-- Questions word for word, as they came: which of them nobody has agreed an answer to is worked out when somebody looks.
create table asked_question (
  message_id uuid not null references message on delete cascade,
  words text not null,
  person_id uuid references person on delete cascade,
  at timestamptz not null,
  primary key (message_id, words)
);
create index asked_question_at on asked_question (at desc);
create index asked_question_person on asked_question (person_id);
