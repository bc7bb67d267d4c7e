create table platform (
    id uuid primary key,
    name text not null,
    revision bigint not null,
    created_at timestamptz not null default now()
);

-- Every accepted edit is a revision with the whole document: undo is an earlier one put on top.
create table revision (
    platform_id uuid not null references platform on delete cascade,
    number bigint not null,
    document text not null,
    title text not null,
    edit jsonb,
    -- The revision that this one repeats, after an undo or redo.
    repeats bigint,
    undo_to bigint,
    redo_to bigint,
    made_at timestamptz not null default now(),
    primary key (platform_id, number)
);

create table program (
    id uuid primary key,
    platform_id uuid not null references platform on delete cascade,
    name text not null,
    sha256 text not null,
    contents bytea not null,
    uploaded_at timestamptz not null default now(),
    unique (platform_id, sha256)
);
