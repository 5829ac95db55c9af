-- What somebody has is counted on the page of people and before they are let go: not by reading every record.
create index person_owner on person (owner_id) where owner_id is not null and merged_into is null;
create index deal_owner on deal (owner_id) where owner_id is not null;
create index application_owner on application (owner_id) where owner_id is not null;

-- Indexes on values of own fields were made of records that are not merged: the planner does not look at how values are spread in such.
-- The worker makes them anew.
do $$
declare name text;
begin
  for name in select relname from pg_class where relkind = 'i' and relname like 'own\_value\_%' loop
    execute format('drop index %I', name);
  end loop;
end $$;
