-- How many calls a connection takes at once, over all workers: one row for each place. Real time, like the pacing.
create table connection_slot (
  name text not null,
  slot integer not null,
  -- who has it, until when: after that it is free again, whoever has died
  held_by uuid,
  held_until timestamptz not null default '-infinity',
  primary key (name, slot)
);
