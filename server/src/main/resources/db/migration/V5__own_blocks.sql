-- Block types that people write themselves are kept beside their boards and recipes.
alter table library_entry drop constraint library_entry_kind_check;
alter table library_entry add constraint library_entry_kind_check check (kind in ('board', 'recipe', 'block'));
