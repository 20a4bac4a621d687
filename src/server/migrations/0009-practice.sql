-- Something to practise: what it is of, its keys, its ladder of tempo, and which keys are put off or rested.
create table items (
  id text constraint items_pk primary key,
  name text not null,
  of jsonb not null,
  keys jsonb not null,
  tempo jsonb not null,
  pattern jsonb,
  note text,
  tags text[] not null default '{}',
  rests jsonb,
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index items_by_update on items (updated_at desc, id desc) where deleted_at is null;

-- What was practised, and words of one's own. Cards are worked out from it and kept nowhere.
create table log_entries (
  id text constraint log_entries_pk primary key,
  at timestamptz not null,
  kind text not null,
  item_id text constraint log_entries_item_fk references items (id),
  key text,
  tempo double precision,
  grade text,
  minutes double precision,
  text text,
  answered jsonb,
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index log_entries_by_update on log_entries (updated_at desc, id desc) where deleted_at is null;
create index log_entries_by_time on log_entries (at desc, id desc) where deleted_at is null;
