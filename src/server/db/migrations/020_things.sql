-- Named things are known by an id, so that a name can change; every version of one stays.
alter table library_item add column id uuid not null default gen_random_uuid();
alter table library_item add constraint library_item_id unique (id);
alter table library_item add column no integer not null default 1;
alter table library_item add column retired boolean not null default false;
create table library_version (
  item_id uuid not null references library_item (id) on delete cascade,
  no integer not null,
  body jsonb not null,
  says text not null,
  -- null: as it came, with the workspace or with a flow
  saved_by uuid references app_user,
  saved_at timestamptz,
  primary key (item_id, no)
);
insert into library_version (item_id, no, body, says) select id, 1, body, 'as it came' from library_item;
