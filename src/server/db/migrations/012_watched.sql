-- Doors that are looked at again and again: mailboxes and calendars.
alter table intake drop constraint intake_kind_check;
alter table intake add constraint intake_kind_check check (kind in ('form', 'webhook', 'mailbox', 'calendar'));
alter table intake
  -- when it is looked at next; real time, and while somebody looks the end of their lease
  add column look_at timestamptz,
  -- when there will be something new by itself, by the workspace's clock
  add column next_at timestamptz,
  -- how far it has been read
  add column cursor jsonb,
  add column looked_at timestamptz,
  -- what went wrong at the last look; null when nothing did
  add column problem text,
  add column failures integer not null default 0;
create index intake_look on intake (look_at) where look_at is not null;
