-- A line: its notes in ticks from the start of the chart, or of the bars in its own text.
create table lines (
  id text constraint lines_pk primary key,
  name text not null,
  chart_id text constraint lines_chart_fk references charts (id),
  text text,
  line jsonb not null,
  tags text[] not null default '{}',
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index lines_by_update on lines (updated_at desc, id desc) where deleted_at is null;
create index lines_by_chart on lines (chart_id) where deleted_at is null;
