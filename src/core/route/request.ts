import { readOverlay } from '../material/read-overlay.ts'
import { degree, isDegree } from '../pitch/degree.ts'
import { setOf } from '../pitch/pcset.ts'
import { FAMILY_NAMES, type PentatonicNaming } from '../reading/candidates.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import { deviceName, readDevice } from './device.ts'
import type { Giving } from './loosen.ts'
import type { BannedAt, LockedAt, RouteOptions, WindowAt, WishedFade } from './options.ts'
import type { RecipePlace } from './recipe.ts'
import { MOTION_SCOPES, motionName, ROUTE_FAMILIES, readMotion } from './rules.ts'
import { type At, type Cut, type Slot, sameAt } from './slots.ts'

/** Everything asked of a route in words that can be sent, kept and put into an address. */
export interface RouteRequest {
  readonly bars: readonly [number, number] | null
  readonly families: readonly string[]
  /** Degrees, ASCII. */
  readonly hold: readonly string[]
  readonly avoid: readonly string[]
  readonly fadeMin: number
  readonly fadeMax: number
  readonly landingMin: number
  readonly rubsFrom: number
  readonly arc: readonly WishedFade[]
  readonly motion: string
  readonly scope: string
  readonly loop: boolean
  readonly holdsAsOne: boolean
  readonly cuts: readonly Cut[]
  readonly joins: readonly At[]
  readonly locks: readonly (At & { readonly overlay: string })[]
  readonly bans: readonly (Partial<At> & { readonly overlay?: string; readonly device?: string })[]
  readonly windows: readonly WindowAt[]
}

/** What is asked where nothing is said. */
export const PLAIN_REQUEST: RouteRequest = {
  bars: null,
  families: ROUTE_FAMILIES,
  hold: [],
  avoid: [],
  fadeMin: 0,
  fadeMax: 100,
  landingMin: 0,
  rubsFrom: 0,
  arc: [],
  motion: 'free',
  scope: 'cadence',
  loop: false,
  holdsAsOne: false,
  cuts: [],
  joins: [],
  locks: [],
  bans: [],
  windows: [],
}

/** What in a request does not read, and where: `path` names the field. */
export interface RequestError {
  readonly path: string
  readonly error: TextError
}

const wrong = (path: string, found: string, ...expected: readonly string[]): Result<never, RequestError> =>
  fail({ path, error: { code: 'unknown_question', at: 0, found, expected } })

/** Reads a request; the first thing that does not read is the error. */
export const readRequest = (asked: RouteRequest, naming: PentatonicNaming): Result<RouteOptions, RequestError> => {
  const motion = readMotion(asked.motion)
  if (!motion) return wrong('motion', asked.motion, '+1', '-1', 'constant', 'one-note', 'contrary', 'fewest', 'free')
  const scope = MOTION_SCOPES.find((s) => s === asked.scope)
  if (!scope) return wrong('motionScope', asked.scope, ...MOTION_SCOPES)
  const families = FAMILY_NAMES.filter((f) => asked.families.includes(f))
  const strange = asked.families.find((f) => !families.some((known) => known === f))
  if (strange !== undefined) return wrong('families', strange, ...FAMILY_NAMES)
  const locks: LockedAt[] = []
  for (const [i, { bar, beat, overlay }] of asked.locks.entries()) {
    const read = readOverlay(overlay)
    if (!read.ok) return fail({ path: `lock.${i}.overlay`, error: read.error })
    locks.push({ bar, beat, overlay: read.value })
  }
  const bans: BannedAt[] = []
  for (const [i, { bar, beat, overlay, device }] of asked.bans.entries()) {
    const read = overlay === undefined ? null : readOverlay(overlay)
    if (read && !read.ok) return fail({ path: `ban.${i}.overlay`, error: read.error })
    const known = device === undefined ? null : readDevice(device)
    if (device !== undefined && !known) return wrong(`ban.${i}.device`, device, 'minor pentatonic on b3')
    if (!read && !known) return wrong(`ban.${i}`, '', 'an overlay', 'a device')
    const at = bar === undefined || beat === undefined ? null : { bar, beat }
    bans.push({ at, overlay: read ? read.value : null, device: known && deviceName(known) })
  }
  const semitones = (names: readonly string[]) => setOf(names.filter(isDegree).map((n) => degree(n).semitones))
  const { bars, cuts, joins, holdsAsOne, hold, avoid, ...plain } = asked
  return ok({
    ...plain,
    families,
    naming,
    hold: semitones(hold),
    avoid: semitones(avoid),
    motion,
    scope,
    locks,
    bans,
    slots: { bars, cuts, joins, holdsAsOne, anew: [...asked.locks, ...asked.windows] },
  })
}

/**
 * A request with places of a recipe in it, as locks, cuts and windows the player can take out again. What the player has
 * locked stays; a place that clashes with it, or with an earlier place, is left out.
 */
export const withPlaces = (asked: RouteRequest, places: readonly RecipePlace[]): RouteRequest => {
  const [cuts, locks, windows] = [[...asked.cuts], [...asked.locks], [...asked.windows]]
  let { joins } = asked
  for (const place of places) {
    const clashes = place.parts.some(
      (p) => windows.some((w) => sameAt(w, p)) || locks.some((l) => sameAt(l, p) && l.overlay !== p.overlay?.name),
    )
    if (clashes) continue
    for (const cut of place.cuts) if (!cuts.some((c) => sameAt(c, cut) && c.at === cut.at)) cuts.push(cut)
    joins = joins.filter((j) => !place.parts.some((p) => sameAt(p, j)))
    for (const { bar, beat, overlay, window } of place.parts) {
      if (overlay && !locks.some((l) => sameAt(l, { bar, beat }))) locks.push({ bar, beat, overlay: overlay.name })
      if (window) windows.push({ bar, beat, ...window })
    }
  }
  return { ...asked, cuts, joins, locks, windows }
}

/** The request with one rule given way; the slots say where its steps are. */
export const giveWayIn = (asked: RouteRequest, giving: Giving, slots: readonly Slot[]): RouteRequest => {
  switch (giving.of) {
    case 'lock': {
      const slot = slots[giving.step]
      return { ...asked, locks: asked.locks.filter((l) => !slot || !sameAt(l, slot)) }
    }
    case 'ban':
      return { ...asked, bans: asked.bans.filter((_, i) => i !== giving.index) }
    case 'hold':
    case 'avoid':
      return { ...asked, [giving.of]: asked[giving.of].filter((d) => degree(d).semitones % 12 !== giving.up) }
    case 'windows':
      return { ...asked, windows: [] }
    case 'loop':
      return { ...asked, loop: false }
    case 'scope':
      return { ...asked, scope: 'cadence' }
    case 'motion':
      return { ...asked, motion: motionName(giving.to) }
    case 'family':
      return { ...asked, families: [...asked.families, giving.family] }
    default:
      return { ...asked, [giving.of]: giving.to }
  }
}
