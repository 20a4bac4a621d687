import {
  ARC_NAMES,
  type ArcPreset,
  type Interval,
  PLAIN_REQUEST,
  ROUTE_FAMILIES,
  type RouteRequest,
  readOverlay,
  transposeOverlay,
} from '../../../core/index.ts'

/** What a player asks of a route, as it stands in the address and is kept: only what differs from `USUAL_PLAN`. */
export interface PlanWords extends Partial<RouteRequest> {
  readonly preset?: ArcPreset
  /** Only the best of each series of colour devices. */
  readonly eachSeries?: boolean
}

/** What is asked at first: held chords keep one overlay, and notes rub only where one is openly out. */
export const USUAL_PLAN = {
  ...PLAIN_REQUEST,
  families: ROUTE_FAMILIES.filter((f) => f !== 'mode'),
  rubsFrom: 55,
  holdsAsOne: true,
  preset: 'with the cadences',
  eachSeries: true,
} as const satisfies PlanWords
export type WholePlan = RouteRequest & { readonly preset: ArcPreset; readonly eachSeries: boolean }

type Check = (value: unknown) => boolean
const isRecord = (v: unknown): v is Readonly<Record<string, unknown>> => typeof v === 'object' && v !== null
const number: Check = (v) => typeof v === 'number' && Number.isFinite(v)
const text: Check = (v) => typeof v === 'string' && v.length < 200
const flag: Check = (v) => typeof v === 'boolean'
const MOST = 1000
const listOf =
  (one: Check): Check =>
  (v) =>
    Array.isArray(v) && v.length <= MOST && v.every(one)
const record =
  (needed: Readonly<Record<string, Check>>, optional: Readonly<Record<string, Check>> = {}): Check =>
  (v) =>
    isRecord(v) &&
    Object.entries(needed).every(([key, check]) => check(v[key])) &&
    Object.entries(optional).every(([key, check]) => v[key] === undefined || check(v[key]))
const AT = { bar: number, beat: number }

const CHECKS: Readonly<Record<keyof WholePlan, Check>> = {
  bars: (v) => v === null || (Array.isArray(v) && v.length === 2 && v.every(number)),
  families: listOf(text),
  hold: listOf(text),
  avoid: listOf(text),
  fadeMin: number,
  fadeMax: number,
  landingMin: number,
  rubsFrom: number,
  arc: listOf(record({ ...AT, fade: number })),
  motion: text,
  scope: text,
  loop: flag,
  holdsAsOne: flag,
  cuts: listOf(record({ ...AT, at: number })),
  joins: listOf(record(AT)),
  locks: listOf(record({ ...AT, overlay: text })),
  bans: listOf(record({}, { ...AT, overlay: text, device: text })),
  windows: listOf(record({ ...AT, least: number, most: number })),
  preset: (v) => ARC_NAMES.some((name) => name === v),
  eachSeries: flag,
}

/** Words from anywhere: what is not as it should be counts as not said. */
export const planFrom = (value: unknown): PlanWords => {
  if (!isRecord(value)) return {}
  return Object.fromEntries(
    Object.entries(CHECKS).flatMap(([key, check]) => (key in value && check(value[key]) ? [[key, value[key]]] : [])),
  )
}

export const readPlan = (words: string | null): PlanWords => {
  if (words === null) return {}
  try {
    return planFrom(JSON.parse(words))
  } catch {
    return {}
  }
}

/** Only what differs from the usual; null where nothing does. */
export const writePlan = (plan: PlanWords): string | null => {
  const differing = Object.entries(plan).filter(
    ([key, value]) => JSON.stringify(value) !== JSON.stringify(USUAL_PLAN[key as keyof WholePlan]),
  )
  return differing.length === 0 ? null : JSON.stringify(Object.fromEntries(differing))
}

const moved = (name: string, by: Interval): string => {
  const read = readOverlay(name)
  return read.ok ? transposeOverlay(read.value, by).name : name
}

/** The same with its overlays moved into another pitch. */
export const movePlan = (plan: PlanWords, by: Interval): PlanWords => {
  if (by.semitones === 0 && by.letters === 0) return plan
  const { locks, bans } = plan
  return {
    ...plan,
    ...(locks ? { locks: locks.map((l) => ({ ...l, overlay: moved(l.overlay, by) })) } : {}),
    ...(bans ? { bans: bans.map((b) => (b.overlay === undefined ? b : { ...b, overlay: moved(b.overlay, by) })) } : {}),
  }
}
