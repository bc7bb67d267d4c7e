-- Who made a revision, as far as they say: their browser's own number, and what they call themselves.
alter table revision
    add column author_browser uuid,
    add column author_name text;

alter table platform add column removed_by text;

-- What an edit was sent with, so that one that is sent again after a lost answer is not made twice.
alter table revision add column sent_as uuid;
create unique index revision_sent_as on revision (platform_id, sent_as);
