-- What people add to the library themselves: boards and recipes, as documents.
create table library_entry (
    kind text not null check (kind in ('board', 'recipe')),
    identity text not null,
    document text not null,
    -- Grows with every change, so that a server notices what another has changed.
    change bigserial not null,
    changed_at timestamptz not null default now(),
    primary key (kind, identity)
);
