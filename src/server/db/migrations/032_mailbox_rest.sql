-- A mailbox rests by itself when too much of what it sent came back, until somebody lets it send again.
alter table mailbox
  add column rests_since timestamptz,
  add column rests_why text,
  -- what came back before then is no longer counted
  add column resumed_at timestamptz;
