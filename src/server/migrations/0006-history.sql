-- What may be done again is found without reading the whole history, which goes back so far and no further.
create index changes_undone_last on changes (undone_as desc) where undone_as is not null and not gone;
delete from changes where id <= (select coalesce(max(id), 0) - 10000 from changes);
