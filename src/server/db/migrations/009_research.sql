-- Pages are kept in blocks as their author set them apart, with the day they are of. What was kept before is read again.
delete from page;
alter table page drop column text;
alter table page add column title text not null default '';
alter table page add column language text not null default '';
alter table page add column published timestamptz;
alter table page add column blocks jsonb not null default '[]';
create index page_host on page (split_part(url, '/', 3));

alter table company add column decider text;
alter table company add column founded integer;

-- Searches at sources: started, asked after, collected; kept for whoever asks the same while it is fresh.
create table research_job (
  key text primary key,
  source text not null,
  -- the person or company it is about
  record_id uuid not null,
  -- the source's own number for it; null until it was started
  job text,
  state text not null default 'new' check (state in ('new', 'working', 'done', 'failed')),
  documents jsonb not null default '[]',
  says text not null default '',
  cost_micro bigint not null default 0,
  -- its cost stands in the journal or the dossier that paid for it
  cost_told boolean not null default false,
  -- money set aside for it in budgets
  reserved jsonb,
  started_at timestamptz not null,
  ask_at timestamptz not null
);
create index research_job_record on research_job (record_id, started_at desc);

-- Dossiers: asked for, made step by step, kept as they were made.
create table dossier (
  id uuid primary key,
  record_kind text not null check (record_kind in ('person', 'company')),
  record_id uuid not null,
  state text not null default 'queued' check (state in ('queued', 'done', 'failed')),
  -- what is being done just now
  step text not null default '',
  content jsonb,
  pages integer not null default 0,
  cost_micro bigint not null default 0,
  took_ms integer not null default 0,
  afresh boolean not null default false,
  -- whom it is sent to when it is ready
  mail_to text,
  problem text,
  ask_at timestamptz not null,
  lease_until timestamptz,
  created_by uuid references app_user,
  created_at timestamptz not null,
  ended_at timestamptz
);
create index dossier_record on dossier (record_id, created_at desc);
create index dossier_due on dossier (ask_at) where state = 'queued';
