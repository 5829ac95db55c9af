-- A paid question may be asked while a line above its own still waits: its cost is told to the line it is for, once.
alter table effect add column cost_told boolean not null default true;
