-- How far a question to a service is that answers later: its ticket, so that it is never asked twice.
alter table effect add column asking jsonb;
