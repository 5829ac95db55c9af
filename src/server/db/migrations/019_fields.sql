-- What a business knows of its records besides what every business knows is data of its workspace. Values of its own fields
-- lie in "custom", by their keys; a fact is of a field by its name, wherever the value lies.
create table field (
  record_kind text not null check (record_kind in ('person', 'company', 'deal')),
  key text not null check (key ~ '^[a-z][a-z0-9_]{0,59}$'),
  -- label, type, unit and all else: the shape is in core/fields
  body jsonb not null,
  place integer generated always as identity,
  primary key (record_kind, key)
);
-- What was changed on fields, so that it can be had back: the fields and the values as they were.
create table field_change (
  id bigint generated always as identity primary key,
  at timestamptz not null,
  user_id uuid references app_user,
  says text not null,
  was jsonb not null,
  undone_at timestamptz
);
create table field_value_was (
  change_id bigint not null references field_change on delete cascade,
  fact_id bigint not null references fact on delete cascade,
  field text not null,
  value jsonb not null,
  primary key (change_id, fact_id)
);
alter table deal add column custom jsonb not null default '{}';

-- Whether a value may lie in "custom" as one of a field of that type: conditions read it by its type and must never fail.
create function fits_field(type text, value jsonb) returns boolean immutable strict parallel safe language sql as $$
  select case
    when jsonb_typeof(value) = 'null' then true
    when type in ('number', 'money', 'year') then jsonb_typeof(value) = 'number'
    when type = 'yes/no' then jsonb_typeof(value) = 'boolean'
    else jsonb_typeof(value) = 'string'
  end
$$;

-- Workspaces made before had fifteen fields of one business as columns. Those in use keep them as fields of their own.
create temporary table moving (record_kind text, key text, body jsonb) on commit drop;
insert into moving values
    ('company', 'heated_area', '{"label": "heated area", "type": "number", "unit": "ha", "group": "Growing", "sample": "4.2", "words": ["area", "glass", "glasshouse", "glass area", "greenhouse area", "size", "under glass", "opp. glas", "glas", "hectare", "ha", "m2", "Fläche", "oppervlakte", "superficie", "powierzchnia"], "most": 500, "least": 0, "bare": {"above": 100, "unit": "m²"}, "isListed": true}'),
    ('company', 'main_crop', '{"label": "main crop", "type": "text", "group": "Growing", "sample": "tomato", "words": ["crop", "gewas", "Kultur", "cultivo", "uprawa", "teelt", "produce"]}'),
    ('company', 'controls', '{"label": "controls", "type": "text", "group": "Growing", "sample": "Tessel 4", "words": ["climate computer", "computer", "control", "Regelung", "Steuerung", "sterowanie", "regeling"], "isListed": true}'),
    ('company', 'controls_since', '{"label": "controls since", "type": "year", "group": "Growing", "sample": "2013", "words": ["age of the controls"]}'),
    ('company', 'expansion', '{"label": "expansion", "type": "yes/no", "group": "Growing", "sample": "yes", "words": ["expansion announced", "announced expansion"]}'),
    ('company', 'all_year', '{"label": "grows all year", "type": "yes/no", "group": "Growing", "sample": "yes", "words": ["grow all year", "all year", "year round"]}'),
    ('company', 'energy', '{"label": "energy", "type": "text", "group": "Growing", "sample": "cogeneration", "words": ["heating"]}'),
    ('company', 'service_contract', '{"label": "service contract", "type": "yes/no", "group": "Growing", "sample": "no", "words": ["contract"]}'),
    ('company', 'sites', '{"label": "sites", "type": "number", "group": "Firm", "sample": "2", "words": ["locations"]}'),
    ('company', 'decider', '{"label": "who decides", "type": "text", "group": "Firm", "sample": "Harriet Lowndes", "words": ["decides"]}'),
    ('person', 'service_years', '{"label": "years of field service", "type": "number", "group": "Candidate", "sample": "4", "words": ["field service", "service years"], "yearsIn": ["field", "service", "customer site", "customer sites", "customers'' sites", "commission*", "on site", "on-site", "Aussendienst*", "Kundendienst*", "Servicetechni*", "Inbetriebnahme*", "auf Montage", "buitendienst*", "servicemonteur*", "inbedrijfstelling*", "servicio tecnico", "puesta en marcha", "itinerant*", "depannage", "mise en service", "SAV"], "isListed": true}');
insert into field (record_kind, key, body)
  select record_kind, key, body from moving
  where exists (select from company) or exists (select from person) or exists (select from flow) or exists (select from library_item);
update company c set custom = c.custom || jsonb_strip_nulls((select jsonb_object_agg(m.key, to_jsonb(c) -> m.key) from moving m where m.record_kind = 'company'));
update person p set custom = p.custom || jsonb_strip_nulls((select jsonb_object_agg(m.key, to_jsonb(p) -> m.key) from moving m where m.record_kind = 'person'));
alter table company drop column heated_area, drop column main_crop, drop column controls, drop column controls_since, drop column expansion,
  drop column all_year, drop column energy, drop column service_contract, drop column sites, drop column decider;
alter table person drop column service_years;
-- A released version and a trial speak of the fields as they were.
update flow_version set library = library || jsonb_build_object('fields',
  (select coalesce(jsonb_agg(body || jsonb_build_object('record', record_kind, 'key', key)), '[]') from moving));
update trial set library = library || jsonb_build_object('fields',
  (select coalesce(jsonb_agg(body || jsonb_build_object('record', record_kind, 'key', key)), '[]') from moving));

-- A change of an own field is a change of the record as any other.
create or replace function note_change() returns trigger language plpgsql as $$
declare
  is_now jsonb := to_jsonb(new) || new.custom;
  was jsonb;
begin
  if tg_op = 'INSERT' then
    insert into record_change (flow_id, record_kind, record_id, field)
      select w.flow_id, w.record_kind, new.id, 'record' from change_watch w where w.record_kind = tg_table_name and w.field = 'record';
  else
    was := to_jsonb(old) || old.custom;
    insert into record_change (flow_id, record_kind, record_id, field)
      select w.flow_id, w.record_kind, new.id, w.field from change_watch w
      where w.record_kind = tg_table_name and w.field <> 'record' and is_now -> w.field is distinct from was -> w.field;
  end if;
  return null;
end $$;

-- Demo worlds say at the door what the password of their people is; those made before had all the same.
insert into setting (key, value) select 'demo password', '"glasshouse"' where exists (select from setting where key = 'clock offset')
  on conflict (key) do nothing;
