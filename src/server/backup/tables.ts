import { KINDS, type Kind, type KindName } from '../kinds.ts'

/** A table of which a backup keeps every row, deleted ones too: what was practised refers to them. */
export interface BackedUp {
  /** Of the file in the backup, without `.json`. */
  readonly name: string
  readonly table: string
  readonly kind: KindName | null
  /** Field in the file → column. */
  readonly columns: readonly (readonly [field: string, column: string])[]
  /** What rows are read and told apart by. */
  readonly key: readonly string[]
}

const STAMPS = [
  ['version', 'version'],
  ['createdAt', 'created_at'],
  ['updatedAt', 'updated_at'],
  ['deletedAt', 'deleted_at'],
] as const

const ofKind = (kind: Kind): BackedUp => ({
  name: kind.name,
  table: kind.table,
  kind: kind.name,
  columns: [
    ['id', 'id'],
    ...kind.fields.map((f) => [f.field, f.column] as const),
    ...(kind.told ?? []).map((t) => [t, t] as const),
    ...STAMPS,
  ],
  key: ['id'],
})

const PARTS: BackedUp = {
  name: 'takeParts',
  table: 'take_parts',
  kind: null,
  columns: [
    ['takeId', 'take_id'],
    ['n', 'n'],
    ['notes', 'notes'],
    ['at', 'at'],
  ],
  key: ['take_id', 'n'],
}

/** Before what refers to them: the order rows come in. */
const ORDER = [
  'charts',
  'items',
  'routes',
  'lines',
  'ideas',
  'takes',
  'log',
  'settings',
] as const satisfies readonly KindName[]

export const BACKED_UP: readonly BackedUp[] = [...ORDER.map((name) => ofKind(KINDS[name])), PARTS]
