-- Openings and applications have fields of the workspace's own, as all records have.
alter table opening add column custom jsonb not null default '{}';
alter table application add column custom jsonb not null default '{}';
alter table fact drop constraint fact_record_kind_check,
  add constraint fact_record_kind_check check (record_kind in ('person', 'company', 'deal', 'opening', 'application'));
alter table field drop constraint field_record_kind_check,
  add constraint field_record_kind_check check (record_kind in ('person', 'company', 'deal', 'opening', 'application'));
