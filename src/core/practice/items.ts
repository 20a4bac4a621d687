import { readChord } from '../chord/parse.ts'
import { KEY_ORDER_NAMES, type KeyOrder, keysInOrder } from '../make/keys.ts'
import { FAMILIES, type MaterialFamily } from '../material/catalogue.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { plainNote, readNote } from '../pitch/note.ts'
import { type PitchClass, pitchClass } from '../pitch/units.ts'

/** What is practised. The fields beside `kind` are those its kind needs; names are concert pitch. */
export interface ItemOf {
  readonly kind: string
  /** The key it stands in, where its chord does not say. */
  readonly key?: string
  readonly overlay?: string
  readonly chord?: string
  readonly next?: string | null
  readonly chartId?: string | null
  readonly routeId?: string | null
  readonly lineId?: string | null
  readonly bars?: { readonly from: number; readonly to: number } | null
  /** Of a quiz: what is asked. */
  readonly topics?: readonly string[]
  /** Of out/in blocks: what lies over the bars outside, how many bars to a block, and which comes first. */
  readonly outside?: string
  /** Another chart whose changes are what is outside. */
  readonly outsideChartId?: string | null
  readonly block?: number
  readonly first?: 'out' | 'in'
  /** Of isolating and combining: the sounds, each alone, by turns, then freely. */
  readonly sounds?: readonly string[]
}

export const ITEM_KEY_ORDERS = [...KEY_ORDER_NAMES, 'neglected first'] as const
export type ItemKeyOrder = (typeof ITEM_KEY_ORDERS)[number]

/** Which keys, and in what order: names in their order, or an order of all twelve without those left out on purpose. */
export type ItemKeys =
  | readonly string[]
  | ItemKeyOrder
  | { readonly order: ItemKeyOrder; readonly without?: readonly string[] }

/** A key put off until a day, or rested for as long as `until` is null; `key` null means the whole item. */
export interface Rest {
  readonly key: string | null
  readonly until: string | null
}

/** `tempo` in beats a minute: where it begins, where it ends, and by how much it moves. */
export interface TempoLadder {
  readonly from: number
  readonly to: number
  readonly step: number
}
export const USUAL_LADDER: TempoLadder = { from: 60, to: 120, step: 4 }

export interface PracticeItem {
  readonly id: string
  readonly name: string
  readonly of: ItemOf
  readonly keys: ItemKeys
  readonly tempo: TempoLadder
  readonly rests?: readonly Rest[] | null
}

const pcOf = (name: string): PitchClass | null => {
  const read = readNote(name, 0)
  return read.ok && read.value.end === name.length ? read.value.note.pc : null
}

/** The key an item was made in: the one it names, else its chord's root, else its overlay's, else C. */
export const homeKeyOf = ({ key, chord, overlay, sounds, outside }: ItemOf): PitchClass => {
  const own = key === undefined ? null : pcOf(key)
  if (own !== null) return own
  const read = chord === undefined ? null : readChord(chord)
  if (read?.ok) return read.value.root.pc
  const laid = readOverlay(overlay ?? sounds?.[0] ?? outside ?? '')
  return laid.ok ? laid.value.root.pc : pitchClass(0)
}

const nameOfKey = (pc: PitchClass): string => plainNote(pc).name

/** A name as the twelve keys are named here; what is no note stays as it is. */
export const plainKey = (name: string): string => {
  const pc = pcOf(name)
  return pc === null ? name : nameOfKey(pc)
}
export const TWELVE_KEYS: readonly string[] = Array.from({ length: 12 }, (_, pc) => nameOfKey(pitchClass(pc)))

const ordered = (order: KeyOrder, from: PitchClass, rng: () => number): readonly string[] =>
  keysInOrder(order, rng).map((up) => nameOfKey(pitchClass(from + up)))

/**
 * The keys of an item in the order they are practised, as plain names; of a quiz its topics. `lastAt` says when a key was
 * last played, for those neglected most to come first; `rng` is only asked for an order by chance.
 */
export const keysOfItem = (
  { of, keys }: Pick<PracticeItem, 'of' | 'keys'>,
  rng: () => number,
  lastAt: (key: string) => number = () => 0,
): readonly string[] => {
  if (of.kind === 'quiz') return of.topics ?? []
  if (typeof keys !== 'string' && !('order' in keys)) return [...new Set(keys.map(plainKey))]
  const order = typeof keys === 'string' ? keys : keys.order
  const without = new Set(typeof keys === 'string' ? [] : (keys.without ?? []).map(plainKey))
  const from = homeKeyOf(of)
  const all = order === 'neglected first' ? ordered('fourths', from, rng) : ordered(order, from, rng)
  const left = all.filter((k) => !without.has(k))
  return order === 'neglected first' ? [...left].sort((a, b) => lastAt(a) - lastAt(b)) : left
}

/** What an item's practice counts as: the kind of material that is laid, else what kind of item it is. */
export const PRACTICE_FAMILIES = [
  ...(Object.keys(FAMILIES) as MaterialFamily[]),
  ...(['pair', 'notes', 'route', 'line', 'study', 'out-in', 'combine'] as const),
] as const
export type PracticeFamily = (typeof PRACTICE_FAMILIES)[number]

export const familyOf = (of: ItemOf): PracticeFamily | null => {
  const own = PRACTICE_FAMILIES.find((f) => f === of.kind)
  if (own) return own
  const read = readOverlay(of.overlay ?? '')
  if (!read.ok) return null
  return read.value.groups ? 'pair' : (read.value.material?.family ?? 'notes')
}
