-- Changes of records that flows take in from. A trigger notes them, whoever makes them, in the transaction that makes them.
create table change_watch (
  flow_id uuid not null references flow on delete cascade,
  record_kind text not null check (record_kind in ('person', 'company', 'deal')),
  -- a column, or 'record' for a record that is new
  field text not null,
  primary key (record_kind, field, flow_id)
);
create table record_change (
  id bigint generated always as identity primary key,
  flow_id uuid not null references flow on delete cascade,
  record_kind text not null,
  record_id uuid not null,
  field text not null
);
create function note_change() returns trigger language plpgsql as $$
begin
  if tg_op = 'INSERT' then
    insert into record_change (flow_id, record_kind, record_id, field)
      select w.flow_id, w.record_kind, new.id, 'record' from change_watch w where w.record_kind = tg_table_name and w.field = 'record';
  else
    insert into record_change (flow_id, record_kind, record_id, field)
      select w.flow_id, w.record_kind, new.id, w.field from change_watch w
      where w.record_kind = tg_table_name and w.field <> 'record' and to_jsonb(new) -> w.field is distinct from to_jsonb(old) -> w.field;
  end if;
  return null;
end $$;
create trigger person_changes after insert or update on person for each row execute function note_change();
create trigger company_changes after insert or update on company for each row execute function note_change();
create trigger deal_changes after insert or update on deal for each row execute function note_change();
