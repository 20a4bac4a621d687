-- Every change is told to who listens: to the pages that are open, of every process on this database. The word of its
-- step goes with it, so that a page knows its own; what is taken back or done again is nobody's own. `gone`: the row is no more.
create function tell_change() returns trigger language plpgsql as $$
begin
  perform pg_notify('crossfade', json_build_object(
    'news', 'row', 'kind', new.kind, 'id', new.row_id,
    'gone', new.action = case when new.undone_as is null then 'delete' else 'create' end,
    'step', case when tg_op = 'INSERT' or new.undone_as is not distinct from old.undone_as then new.step end)::text);
  return null;
end $$;
create trigger changes_told after insert or update of after, undone_as on changes
  for each row execute function tell_change();
