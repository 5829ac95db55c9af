-- A touch may be a task of a person: a call, a note on a profile, a letter. It stands in the ledger beside the mails of its plan.
alter table message add column channel text not null default 'e-mail' check (channel in ('e-mail', 'call', 'profile note', 'letter'));
-- looked at when it is due: a condition in FEEL; null: always
alter table message add column only_when text;
alter table effect drop constraint effect_kind_check;
alter table effect add constraint effect_kind_check check (kind in ('send', 'look up', 'hand over', 'tell', 'task'));
alter table effect add constraint effect_task_check check (kind <> 'task' or (message_id is not null and person_id is not null and due_at is not null));
create index effect_task_due on effect (due_at) where kind = 'task' and state = 'planned';
