-- Who has a conversation: nobody until it is handed to somebody.
alter table thread add column holder_id uuid references app_user;
create index thread_holder on thread (holder_id) where holder_id is not null;
