-- How a mailbox paces its mails, how a new one begins, and what stands under each of them.
alter table mailbox add column minutes_apart integer not null default 2 check (minutes_apart between 2 and 240);
alter table mailbox add column ramp_up jsonb;
alter table mailbox add column signature text not null default '';
