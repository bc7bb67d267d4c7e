-- What a revision is called, such as "handed over to software".
alter table revision add column name text;
