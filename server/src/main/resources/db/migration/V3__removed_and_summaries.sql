-- A removed platform can be brought back for some time.
alter table platform add column removed_at timestamptz;

-- What the list of platforms says about a revision, so that it need not be worked out each time.
alter table revision add column summary jsonb;
