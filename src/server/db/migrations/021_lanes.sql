-- Whoever takes a list, a dossier or a door anew moves its fence on: who lost the lease can no longer write.
alter table import add column fence bigint not null default 0;
alter table dossier add column fence bigint not null default 0;
alter table intake add column fence bigint not null default 0;

-- Found by what they belong to.
create index effect_trip on effect (trip_id);
create index message_trip on message (trip_id);
create index message_to on message (to_address, at desc) where direction = 'out' and state = 'sent';
create index thread_trip on thread (trip_id);
create index review_trip on review (trip_id);
create index pair_a on pair (a_id);
create index pair_b on pair (b_id);
create index merge_into on merge (into_id);
create index intake_entry_person on intake_entry (person_id);

-- The keys by which records are found again, one row each: a look-up of thousands of keys costs the same whatever there is.
create table match_key (
  kind text not null,
  key text not null,
  record_id uuid not null,
  primary key (kind, key, record_id)
);
create index match_key_record on match_key (record_id);
insert into match_key (kind, key, record_id) select distinct 'person', unnest(match_keys), id from person where merged_into is null;
insert into match_key (kind, key, record_id) select distinct 'company', unnest(match_keys), id from company where merged_into is null;
create function match_keys_made() returns trigger language plpgsql as $$
begin
  insert into match_key (kind, key, record_id) select distinct tg_argv[0], unnest(match_keys), id from made where merged_into is null;
  return null;
end $$;
create function match_keys_changed() returns trigger language plpgsql as $$
begin
  delete from match_key where record_id = old.id;
  if tg_op = 'UPDATE' and new.merged_into is null then
    insert into match_key (kind, key, record_id) select distinct tg_argv[0], unnest(new.match_keys), new.id;
  end if;
  return null;
end $$;
create trigger person_keys_made after insert on person referencing new table as made for each statement execute function match_keys_made('person');
create trigger company_keys_made after insert on company referencing new table as made for each statement execute function match_keys_made('company');
create trigger person_keys_changed after update of match_keys, merged_into on person for each row
  when (old.match_keys is distinct from new.match_keys or old.merged_into is distinct from new.merged_into) execute function match_keys_changed('person');
create trigger company_keys_changed after update of match_keys, merged_into on company for each row
  when (old.match_keys is distinct from new.match_keys or old.merged_into is distinct from new.merged_into) execute function match_keys_changed('company');
create trigger person_keys_gone after delete on person for each row execute function match_keys_changed('person');
create trigger company_keys_gone after delete on company for each row execute function match_keys_changed('company');
drop index person_keys;
drop index company_keys;
