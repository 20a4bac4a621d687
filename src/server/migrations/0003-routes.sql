-- A route: an overlay for each of its steps, with the chords they were planned over, and what was asked for.
create table routes (
  id text constraint routes_pk primary key,
  name text not null,
  chart_id text constraint routes_chart_fk references charts (id),
  chart_version integer,
  steps jsonb not null,
  rules jsonb,
  note text,
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index routes_by_update on routes (updated_at desc, id desc) where deleted_at is null;
create index routes_by_chart on routes (chart_id) where deleted_at is null;
