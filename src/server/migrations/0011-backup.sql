-- In which folder of the data directory the sounds of takes lie: a restore changes it in one step with the rows.
create table sound_folder (name text not null);
insert into sound_folder values ('sounds');

-- How many rows each table holds, counted as they come and go: a table that reads shorter than that is damaged.
create table row_counts (
  name text constraint row_counts_pk primary key,
  rows bigint not null
);
insert into row_counts values
  ('charts', (select count(*) from charts)),
  ('routes', (select count(*) from routes)),
  ('lines', (select count(*) from lines)),
  ('ideas', (select count(*) from ideas)),
  ('takes', (select count(*) from takes)),
  ('take_parts', (select count(*) from take_parts)),
  ('items', (select count(*) from items)),
  ('log_entries', (select count(*) from log_entries)),
  ('settings', (select count(*) from settings));

create function count_rows() returns trigger language plpgsql as $$
begin
  if tg_op = 'INSERT' then
    update row_counts set rows = rows + (select count(*) from changed) where name = tg_table_name;
  else
    update row_counts set rows = rows - (select count(*) from changed) where name = tg_table_name;
  end if;
  return null;
end $$;

do $$
declare counted text;
begin
  foreach counted in array array['charts', 'routes', 'lines', 'ideas', 'takes', 'take_parts', 'items', 'log_entries', 'settings']
  loop
    execute format('create trigger %I after insert on %I referencing new table as changed for each statement execute function count_rows()', counted || '_come', counted);
    execute format('create trigger %I after delete on %I referencing old table as changed for each statement execute function count_rows()', counted || '_go', counted);
  end loop;
end $$;
