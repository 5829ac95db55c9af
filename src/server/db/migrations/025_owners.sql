-- What somebody has is counted on the page of people and before they are let go: not by reading every record.
create index person_owner on person (owner_id) where owner_id is not null and merged_into is null;
create index deal_owner on deal (owner_id) where owner_id is not null;
create index application_owner on application (owner_id) where owner_id is not null;
