-- The language a message was written in, and why not in the reader's, where it was made of a text.
alter table message
  add column language text,
  add column fallback text;
