-- Which of two wordings that are tried against each other a message was written in.
alter table message
  add column tried_pair text,
  add column tried_arm text check (tried_arm in ('usual', 'tried'));
create index message_tried on message (tried_pair) where tried_pair is not null;
