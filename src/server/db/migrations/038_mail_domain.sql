-- What the domain of a mailbox said of its mails when it was looked at last, and keys to sign them with (RFC 6376).
alter table mailbox add column domain_seen jsonb;
create table signing_key (
  mailbox text primary key references mailbox(name) on delete cascade on update cascade,
  selector text not null,
  public_key text not null,
  -- its domain knows it: nothing is signed before
  known boolean not null default false,
  -- sealed
  secret text not null
);
