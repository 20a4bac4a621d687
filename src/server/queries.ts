import { KINDS, type Kind, type KindName } from './kinds.ts'

const SORTS = ['-updatedAt', 'title', 'createdAt', '-at'] as const
export type Sort = (typeof SORTS)[number]
/** How rows of a kind can be ordered: only what tells of a moment by that. */
export const sortsOf = ({ at }: Kind): readonly Sort[] => SORTS.filter((s) => s !== '-at' || at !== undefined)

const order = (kind: Kind, sort: Sort) =>
  ({
    '-updatedAt': { key: 'updated_at', cast: 'timestamptz', direction: 'desc', compare: '<' },
    createdAt: { key: 'created_at', cast: 'timestamptz', direction: 'asc', compare: '>' },
    title: { key: kind.title, cast: 'text', direction: 'asc', compare: '>' },
    '-at': { key: kind.at ?? 'created_at', cast: 'timestamptz', direction: 'desc', compare: '<' },
  })[sort]

/** The columns as the interface names them, or those that were asked for beside the row's own. Identifiers come from our own tables; values are always parameters. */
const select = (kind: Kind, fields: readonly string[] | null = null): string =>
  [
    'id',
    ...kind.fields.filter((f) => fields?.includes(f.field) ?? true).map((f) => `${f.column} as "${f.field}"`),
    ...(kind.told ?? []).filter((t) => fields?.includes(t) ?? true),
    'version',
    'created_at as "createdAt"',
    'updated_at as "updatedAt"',
    'deleted_at as "deletedAt"',
  ].join(', ')

const parameter = (f: Kind['fields'][number], n: number): string => `$${n}${f.jsonb ? '::jsonb' : ''}`

/** Every statement for one kind of row. */
const statementsFor = (kind: Kind) => {
  const columns = kind.fields.map((f) => f.column).join(', ')
  const values = kind.fields.map((f, i) => parameter(f, i + 2)).join(', ')
  const sets = kind.fields.map((f, i) => `${f.column} = ${parameter(f, i + 2)}`).join(', ')
  const found = kind.search.map((s) => `${s} ilike $1`).join(' or ')
  const ofChart = kind.hasChart ? 'and ($5::text is null or chart_id = $5::text)' : ''
  return {
    read: `select ${select(kind)} from ${kind.table} where id = $1`,
    /** For a change that follows in the same transaction. */
    hold: `select ${select(kind)} from ${kind.table} where id = $1 for update`,
    insert: `insert into ${kind.table} (id, ${columns}) values ($1, ${values}) returning ${select(kind)}`,
    update: `update ${kind.table} set ${sets}, version = version + 1, deleted_at = null, updated_at = clock_timestamp() where id = $1 returning ${select(kind)}`,
    remove: `update ${kind.table} set version = version + 1, deleted_at = clock_timestamp(), updated_at = clock_timestamp() where id = $1 returning ${select(kind)}`,
    list: (sort: Sort, fields: readonly string[] | null = null) => {
      const { key, cast, direction, compare } = order(kind, sort)
      return `select ${select(kind, fields)}, ${key}::text as cursor from ${kind.table}
        where deleted_at is null and (${found}) ${ofChart}
          and ($2::text is null or (${key}, id) ${compare} ($2::${cast}, $3::text))
        order by ${key} ${direction}, id ${direction} limit $4`
    },
  }
}

export const STATEMENTS = {
  charts: statementsFor(KINDS.charts),
  routes: statementsFor(KINDS.routes),
  lines: statementsFor(KINDS.lines),
  ideas: statementsFor(KINDS.ideas),
  takes: statementsFor(KINDS.takes),
  items: statementsFor(KINDS.items),
  log: statementsFor(KINDS.log),
  settings: statementsFor(KINDS.settings),
} as const satisfies Readonly<Record<KindName, unknown>>

/** So many of the latest changes can be taken back. */
export const MOST_CHANGES = 10_000

/** What the images of all of them may come to, as they are stored; how often that is looked at, in changes. */
const MOST_IMAGE_BYTES = 256 * 1024 * 1024
export const SIZED_EVERY = 100

const IMAGE_BYTES = 'coalesce(pg_column_size(before), 0) + coalesce(pg_column_size(after), 0)'

const CHANGE = 'id::text as id, kind, row_id as "rowId", action, before, after, put_away as "putAway"'

export const CHANGES = {
  add: `insert into changes (kind, row_id, action, before, after, step, put_away)
    values ($1, $2, $3, $4::jsonb, $5::jsonb, $6, $7) returning id::text as id`,
  goOn: `update changes set after = $3::jsonb, at = clock_timestamp(), put_away = coalesce(put_away, $5)
    where id = (select max(id) from changes) and kind = $1 and row_id = $2 and step = $4 and action <> 'delete'
      and undone_as is null and not gone
    returning id::text as id`,
  letGoLarge: `delete from changes where id <= (select max(id) from
    (select id, sum(${IMAGE_BYTES}) over (order by id desc) as bytes from changes) sized where bytes > ${MOST_IMAGE_BYTES})`,
  letGo: `delete from changes where id <= $1::bigint - ${MOST_CHANGES}`,
  clearRedo: 'update changes set gone = true where undone_as is not null and not gone',
  lastStanding: `select ${CHANGE} from changes
    where undone_as is null and not gone order by changes.id desc limit 1`,
  standing: `select ${CHANGE} from changes
    where id = $1::bigint and undone_as is null and not gone`,
  changedAgain: `select 1 as again from changes where row_id = $1 and id > $2::bigint and undone_as is null and not gone limit 1`,
  lastUndone: `select ${CHANGE} from changes
    where undone_as is not null and not gone order by undone_as desc limit 1`,
  undone: `select ${CHANGE} from changes
    where id = $1::bigint and undone_as is not null and not gone`,
  undoneBefore: `select 1 as before from changes where row_id = $1 and id < $2::bigint and undone_as is not null and not gone limit 1`,
  markUndone: `update changes set undone_as = nextval('changes_undone') where id = $1::bigint`,
  markStanding: 'update changes set undone_as = null where id = $1::bigint',
} as const

/** Parts of takes that are being played. A take that is open and of which nothing has come for a while was cut off. */
export const PARTS = {
  add: `insert into take_parts (take_id, n, notes) values ($1, $2, $3::jsonb)
    on conflict on constraint take_parts_pk do update set notes = excluded.notes, at = clock_timestamp()`,
  cutOff: `select id from takes where open and deleted_at is null and updated_at < clock_timestamp() - $1::interval
    and not exists (select 1 from take_parts where take_id = takes.id and at > clock_timestamp() - $1::interval) order by id`,
  of: 'select notes from take_parts where take_id = $1 order by n',
  dropEnded: 'delete from take_parts where take_id in (select id from takes where not open or deleted_at is not null)',
} as const

/** What the server tells of the sound of a take; it is no change of the player's. */
export const SOUNDS = {
  folder: 'select name from sound_folder limit 1',
  tell: 'update takes set sound = $2::jsonb where id = $1',
} as const

/** One route of a chart is in hand: another that was is put away, and taken up again with undo. */
export const IN_HAND = {
  putAway: `update routes set in_hand = false, version = version + 1, updated_at = clock_timestamp()
    where chart_id = $1 and id <> $2 and in_hand and deleted_at is null returning id`,
  takeUp: `update routes set in_hand = true, version = version + 1, updated_at = clock_timestamp()
    where id = $1 and deleted_at is null and not exists
      (select 1 from routes other where other.chart_id = routes.chart_id and other.in_hand and other.deleted_at is null)`,
} as const

/** What every page begins with. A setting larger than any the page writes is left to the script that wrote it. */
export const PAGE = {
  titles: 'select id, title from charts where deleted_at is null order by title, id limit 200',
  inHand: 'select id from routes where chart_id = $1 and in_hand and deleted_at is null',
  latest: 'select id from charts where deleted_at is null order by updated_at desc, id desc limit 1',
  settings: `select id, name, value, version, created_at as "createdAt", updated_at as "updatedAt" from settings
    where deleted_at is null and pg_column_size(value) < 65536 order by name, id limit 200`,
} as const

/** What the figures of practice are worked out from. Moments in milliseconds since 1970. */
export const PRACTICE = {
  items: 'select id, name, of, keys, tempo, rests from items where deleted_at is null order by created_at, id',
  /** Also of those that are gone: what was practised was. */
  everyItem: 'select id, of from items',
  /** The whole log as one text of JSON: row by row it would take five times as long. */
  log: `select json_agg(json_build_array((extract(epoch from at) * 1000)::float8, kind, item_id, key, tempo, grade, minutes,
      answered) order by at)::text as entries from log_entries where deleted_at is null`,
  /** Whatever is made, changed or removed, this is another. */
  logState: `select count(*) || ' ' || coalesce(max(updated_at)::text, '') as state from log_entries`,
  lines: `select to_char(at at time zone 'utc', 'YYYY-MM-DD"T"HH24:MI:SS"Z"') as at, kind, items.name as item, key,
      log_entries.tempo, grade, minutes, answered ->> 'topic' as topic, answered ->> 'right' as "right",
      answered ->> 'given' as given, text
    from log_entries left join items on items.id = item_id where log_entries.deleted_at is null order by at`,
} as const
