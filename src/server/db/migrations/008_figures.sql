-- The newest trips of a flow without sorting all of them, and what was paid without reading every line of the journal.
create index trip_newest on trip (flow_id, created_at desc, id desc) where trial_id is null;
create index journal_paid on journal (at) include (trip_id, cost_micro) where cost_micro > 0;

-- Figures that take long to count, as they were when they were counted last. Real time.
create table figure (
  key text primary key,
  value jsonb not null,
  counted_at timestamptz not null,
  took_ms integer not null
);
