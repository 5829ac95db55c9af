-- What a reader of a paper should know: that it is a scan, that it was cut; and what stands in it where nobody sees it.
alter table stored_file add column says text not null default '';
alter table stored_file add column hidden jsonb not null default '[]';
