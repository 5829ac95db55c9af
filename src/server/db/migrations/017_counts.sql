-- Stuck trips and today's sends are looked for on every page.
create index trip_stuck on trip (flow_id, version_id, at) where state = 'stuck' and trial_id is null;
create index effect_day on effect (due_at) where kind = 'send';
-- What every provider was asked is read from the lines that ask.
create index journal_lookups on journal (trip_id) where verb = 'look up';
create index effect_doubt on effect (started_at) where state = 'in doubt';

-- People, companies and deals are searched for by any part of their words.
create extension if not exists pg_trgm;
create index person_words on person using gin (name gin_trgm_ops, email gin_trgm_ops) where merged_into is null;
create index company_words on company using gin (name gin_trgm_ops, website gin_trgm_ops, city gin_trgm_ops) where merged_into is null;
create index deal_words on deal using gin (title gin_trgm_ops);

-- How many trips got to each line of a flow and what happened there last, with all they cost there: kept as journals are written,
-- so that nothing has to be counted when somebody looks. Each batch adds its differences; a worker joins them now and then.
create table line_count (
  flow_id uuid not null references flow on delete cascade,
  mark text not null,
  outcome text not null,
  arm text,
  trips bigint not null,
  cost_micro bigint not null,
  took_ms bigint not null
);
create index line_count_flow on line_count (flow_id);
insert into line_count (flow_id, mark, outcome, arm, trips, cost_micro, took_ms)
  select flow_id, mark, outcome, arm, count(*), sum(cost), sum(took) from (
    select distinct on (j.trip_id, j.mark) t.flow_id, j.mark, j.outcome, j.detail->>'arm' as arm,
      sum(j.cost_micro) over same as cost, sum(j.took_ms) over same as took
    from journal j join trip t on t.id = j.trip_id where t.trial_id is null
    window same as (partition by j.trip_id, j.mark) order by j.trip_id, j.mark, j.seq desc) last
  group by flow_id, mark, outcome, arm;
