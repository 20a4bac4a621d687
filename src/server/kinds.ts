/** One kept kind of row: its columns and what a search looks at. What a write must hold is in `schemas.ts`. */
export interface Kind {
  readonly name: KindName
  readonly table: string
  /** JSON field → column; `jsonb` values travel as JSON text. */
  readonly fields: readonly {
    readonly field: string
    readonly column: string
    readonly jsonb?: true
    /** What counts where an older image of a row says nothing of it; else null. */
    readonly unsaid?: unknown
  }[]
  /** Columns that only the server writes. */
  readonly told?: readonly string[]
  readonly search: readonly string[]
  /** Whether its rows may lie over a chart, by which they are then listed. */
  readonly hasChart: boolean
  /** The column that `sort=title` means, and the one of the moment it tells of, where there is one. */
  readonly title: string
  readonly at?: string
}

export const KIND_NAMES = ['charts', 'routes', 'lines', 'ideas', 'takes', 'items', 'log', 'settings'] as const
export type KindName = (typeof KIND_NAMES)[number]
export const isKind = (name: string | undefined): name is KindName => KIND_NAMES.some((k) => k === name)

const json = (...names: readonly string[]) => names.map((field) => ({ field, column: field, jsonb: true as const }))
const same = (...names: readonly string[]) => names.map((field) => ({ field, column: field }))

export const KINDS: Readonly<Record<KindName, Kind>> = {
  charts: {
    name: 'charts',
    table: 'charts',
    hasChart: false,
    fields: [...same('title', 'text', 'tags'), { field: 'overrides', column: 'overrides', jsonb: true }],
    search: ['title', 'text', "array_to_string(tags, ' ')"],
    title: 'title',
  },
  routes: {
    name: 'routes',
    table: 'routes',
    hasChart: true,
    fields: [
      ...same('name', 'note'),
      { field: 'chartId', column: 'chart_id' },
      { field: 'chartVersion', column: 'chart_version' },
      { field: 'steps', column: 'steps', jsonb: true },
      { field: 'rules', column: 'rules', jsonb: true },
      { field: 'inHand', column: 'in_hand', unsaid: false },
    ],
    search: ['name', "coalesce(note, '')"],
    title: 'name',
  },
  lines: {
    name: 'lines',
    table: 'lines',
    hasChart: true,
    fields: [
      ...same('name', 'text', 'tags'),
      { field: 'chartId', column: 'chart_id' },
      { field: 'line', column: 'line', jsonb: true },
      { field: 'disputed', column: 'disputed', jsonb: true },
      { field: 'played', column: 'played', jsonb: true },
      { field: 'routeId', column: 'route_id' },
    ],
    search: ['name', "array_to_string(tags, ' ')"],
    title: 'name',
  },
  ideas: {
    name: 'ideas',
    table: 'ideas',
    hasChart: true,
    fields: [
      ...same('overlay', 'chord', 'next', 'note', 'tags'),
      { field: 'chartId', column: 'chart_id' },
      ...same('bar', 'beat'),
    ],
    search: ['overlay', 'chord', "coalesce(note, '')", "array_to_string(tags, ' ')"],
    title: 'overlay',
  },
  takes: {
    name: 'takes',
    table: 'takes',
    hasChart: true,
    fields: [
      ...same('name', 'key', 'text', 'tempo', 'source', 'tags'),
      { field: 'chartId', column: 'chart_id' },
      { field: 'itemId', column: 'item_id' },
      { field: 'offset', column: 'delay', unsaid: 0 },
      { field: 'soundFrom', column: 'sound_from', unsaid: 0 },
      { field: 'open', column: 'open', unsaid: false },
      ...json('overrides', 'bars', 'plan', 'notes', 'disputed'),
    ],
    told: ['sound'],
    search: ['name', "coalesce(key, '')", 'source', "array_to_string(tags, ' ')"],
    title: 'name',
  },
  items: {
    name: 'items',
    table: 'items',
    hasChart: false,
    fields: [...same('name', 'note', 'tags'), ...json('of', 'keys', 'tempo', 'pattern', 'rests')],
    search: ['name', "coalesce(note, '')", "array_to_string(tags, ' ')"],
    title: 'name',
  },
  log: {
    name: 'log',
    table: 'log_entries',
    hasChart: false,
    fields: [
      ...same('at', 'kind', 'key', 'tempo', 'grade', 'minutes', 'text'),
      { field: 'itemId', column: 'item_id' },
      ...json('answered'),
    ],
    search: ["coalesce(text, '')", "coalesce(key, '')", 'kind'],
    title: "coalesce(text, '')",
    at: 'at',
  },
  settings: {
    name: 'settings',
    table: 'settings',
    hasChart: false,
    fields: [...same('name'), { field: 'value', column: 'value', jsonb: true }],
    search: ['name'],
    title: 'name',
  },
}
