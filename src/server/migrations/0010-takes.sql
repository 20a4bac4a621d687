-- A chorus as it was played, with the chart and the plan it was played over as they were then.
create table takes (
  id text constraint takes_pk primary key,
  name text not null,
  chart_id text constraint takes_chart_fk references charts (id),
  item_id text constraint takes_item_fk references items (id),
  key text,
  text text not null,
  overrides jsonb,
  bars jsonb,
  plan jsonb,
  tempo double precision not null,
  delay double precision not null default 0,
  source text not null,
  notes jsonb not null,
  sound_from double precision not null default 0,
  sound jsonb,
  disputed jsonb,
  open boolean not null default false,
  tags text[] not null default '{}',
  version integer not null default 1,
  created_at timestamptz not null default clock_timestamp(),
  updated_at timestamptz not null default clock_timestamp(),
  deleted_at timestamptz
);
create index takes_by_update on takes (updated_at desc, id desc) where deleted_at is null;

-- Notes of a take that is being played, part after part; folded into it when it ends, or when it was cut off.
create table take_parts (
  take_id text not null constraint take_parts_take_fk references takes (id),
  n integer not null,
  notes jsonb not null,
  at timestamptz not null default clock_timestamp(),
  constraint take_parts_pk primary key (take_id, n)
);
