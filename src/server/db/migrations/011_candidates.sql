-- Candidates: what their papers say, the openings they apply for, and how far each application is.
alter table person
  add column place text, add column employer text, add column jobs text, add column years double precision,
  add column service_years double precision, add column gaps text, add column education text, add column skills text,
  add column languages text, add column licences text, add column driving boolean;
create table opening (
  id uuid primary key,
  name text not null unique check (name <> ''),
  place text not null default '',
  description text not null default '',
  -- what a good candidate has, one line each
  criteria text[] not null default '{}',
  stages text[] not null check (cardinality(stages) > 0),
  is_open boolean not null default true,
  created_by uuid references app_user,
  created_at timestamptz not null
);
create table application (
  id uuid primary key,
  opening_id uuid not null references opening,
  person_id uuid not null references person,
  stage text not null,
  stage_since timestamptz not null,
  owner_id uuid references app_user,
  trip_id uuid,
  created_at timestamptz not null,
  unique (opening_id, person_id)
);
create index application_person on application (person_id);
