import type { KindName } from '../kinds.ts'
import type { KeptRow } from './check-row.ts'

/** Whether what is here is put aside for the backup, or keeps its place beside it. */
export const MANNERS = ['replace', 'merge'] as const
export type Manner = (typeof MANNERS)[number]

/** What stands here under an id. */
export interface Here {
  readonly version: number
  /** Microseconds since 1970, as text: compared, never reckoned with. */
  readonly updatedAt: string
  readonly deleted: boolean
}

const MOST_VERSION = 2_147_483_647

/** A moment of a row, such that the later one compares greater. */
const moment = (value: unknown): number => Date.parse(String(value))

/**
 * Whether a row of the backup is brought in where another may stand, and the version it then has: always one that nobody
 * has read yet, so that a page still open on the row is told. Merging deletes nothing, and of two the later stays.
 */
export const brought = (row: KeptRow, here: Here | undefined, manner: Manner): number | null => {
  const version = Number(row.version)
  if (here === undefined) return version
  const isSame = here.version === version && here.updatedAt === row.updatedAt
  const after = isSame ? version : Math.min(MOST_VERSION, Math.max(version, here.version + 1))
  if (manner === 'replace') return after
  if (isSame || row.deletedAt !== null) return null
  return here.deleted || moment(row.updatedAt) > moment(here.updatedAt) ? after : null
}

/** What there is one of: by chart the route in hand, by name the setting; each with its id. */
export interface Taken {
  readonly inHand: ReadonlyMap<string, string>
  readonly names: ReadonlyMap<string, string>
}

/** Of what there is one of, the one that stands here keeps its place in a merge; null is a row that is left. */
export const beside = (kind: KindName | null, row: KeptRow, { inHand, names }: Taken): KeptRow | null => {
  const isOther = (id: string | undefined): boolean => id !== undefined && id !== row.id
  if (kind === 'routes' && row.inHand === true && isOther(inHand.get(String(row.chartId))))
    return { ...row, inHand: false }
  if (kind === 'settings' && row.deletedAt === null && isOther(names.get(String(row.name)))) return null
  return row
}
