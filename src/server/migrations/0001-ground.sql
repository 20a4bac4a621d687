create table charts (
  id text constraint charts_pk primary key,
  title text not null,
  text text not null,
  tags text[] not null default '{}',
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index charts_by_update on charts (updated_at desc, id desc) where deleted_at is null;
create index charts_by_title on charts (title, id) where deleted_at is null;

create table ideas (
  id text constraint ideas_pk primary key,
  overlay text not null,
  chord text not null,
  next text,
  note text,
  tags text[] not null default '{}',
  chart_id text constraint ideas_chart_fk references charts (id),
  bar integer,
  beat double precision,
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index ideas_by_update on ideas (updated_at desc, id desc) where deleted_at is null;
create index ideas_by_chart on ideas (chart_id) where deleted_at is null;

create table settings (
  id text constraint settings_pk primary key,
  name text not null,
  value jsonb not null,
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create unique index settings_name_once on settings (name) where deleted_at is null;

-- The before- and after-image of every change. undone_as orders what can be redone; null means that the change stands.
create table changes (
  id bigint generated always as identity constraint changes_pk primary key,
  at timestamptz not null default clock_timestamp(),
  kind text not null,
  row_id text not null,
  action text not null constraint changes_action check (action in ('create', 'update', 'delete')),
  before jsonb,
  after jsonb,
  undone_as bigint,
  gone boolean not null default false
);
create index changes_standing on changes (id desc) where undone_as is null and not gone;
create index changes_of_row on changes (row_id, id desc);
create sequence changes_undone;
