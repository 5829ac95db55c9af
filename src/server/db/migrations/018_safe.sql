-- What came to a door and could not be taken: kept as it came, with its reason, until somebody brings it again or drops it.
create table set_aside (
  id uuid primary key,
  -- null: an answer by mail, which has no intake
  intake_id uuid references intake on delete cascade,
  kind text not null check (kind in ('mail', 'meeting')),
  -- what it is, for a list: sender and subject, or title
  says text not null,
  why text not null,
  raw bytea not null,
  at timestamptz not null,
  state text not null default 'open' check (state in ('open', 'brought', 'dropped')),
  settled_at timestamptz,
  settled_by uuid references app_user
);
create index set_aside_open on set_aside (at desc) where state = 'open';

-- A list's rows lie in pieces of JSON lines, so that none has to be held whole to be kept or read; -1: the file of an older one.
create table import_piece (
  import_id uuid not null references import on delete cascade,
  no integer not null,
  bytes bytea not null,
  primary key (import_id, no)
);
insert into import_piece (import_id, no, bytes) select id, -1, bytes from import;
alter table import drop column bytes;
-- What a preview says of all rows is counted beside; null while it is counted.
alter table import add column forecast jsonb;
-- how it was cut into rows; null for an older one, until it is looked at again
alter table import add column list_table jsonb;
alter table import add column says jsonb not null default '[]';

-- Sign-ins are counted by account and by the address they come from.
alter table sign_in_try add column address text not null default '';
alter table sign_in_try add column id bigint generated always as identity primary key;
create index sign_in_try_address on sign_in_try (address, at);
-- Sessions end when nobody uses them, and some time after they began.
alter table session add column seen_at timestamptz not null default now();

create index audit_at on audit (at desc, id desc);
