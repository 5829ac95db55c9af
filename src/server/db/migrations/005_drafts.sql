-- Every saved draft of a flow, so that undo reaches back over sessions; the newest two hundred are kept.
create table flow_draft (
  flow_id uuid not null references flow on delete cascade,
  no integer not null,
  text text not null,
  saved_by uuid references app_user,
  saved_at timestamptz not null,
  primary key (flow_id, no)
);
insert into flow_draft (flow_id, no, text, saved_at) select id, draft_no, draft_text, updated_at from flow;
