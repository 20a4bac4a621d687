import { rotate } from '../pitch/pcset.ts'
import { EMPTY_SET, pitchClass } from '../pitch/units.ts'
import type { Place, Role } from '../reading/role.ts'
import { standingAt } from '../reading/role.ts'
import { beatAt, isStrong, type Sounding, soundingAt, type Timeline } from '../time/timeline.ts'
import { APPROACHES, type ApproachName, approachTo } from './approach.ts'
import { offsetsIn } from './figures.ts'
import { ladderOf, type Material, type MaterialSpan, spansOf } from './ground.ts'
import type { LandingWay, MakeRequest } from './request.ts'
import { momentsOf, startTicks, VALUES } from './rhythm.ts'

/** A moment of the line: when, on what, and whether there a chord tone would say the change. */
export interface Moment {
  readonly at: number
  readonly strong: boolean
  readonly sounding: Sounding | null
  /** Roles by semitones above the chord's root; null without a chord. */
  readonly roles: readonly Role[] | null
}

/** The places in time of one group, and the span whose material it is made of. */
export interface GroupPlace {
  readonly moments: readonly Moment[]
  readonly span: MaterialSpan
  /** Which group of its span it is, from 0. */
  readonly nth: number
  /** Moments that its approach notes take before each other note, where they have places of their own. */
  readonly lead: readonly number[]
  /** Whether it is the one note the line lands on. */
  readonly isEnd: boolean
}

/** One way a group may stand: its notes, lowest first being at `place` on its material's ladder. */
export interface Standing {
  readonly material: number
  readonly place: number
  /** Which note of its material stands lowest, from 0: a triad's inversion. */
  readonly inversion: number
  readonly pitches: readonly number[]
  /** Pitches put before a note of the group, by its place in the group. */
  readonly approaches: readonly (readonly number[])[]
}

const rolesAt = new WeakMap<Place, readonly Role[]>()
const rolesOver = (place: Place): readonly Role[] => {
  const known = rolesAt.get(place)
  if (known) return known
  const roles = Array.from({ length: 12 }, (_, up) => {
    const { role, blue } = standingAt(place, up)
    return blue ? 'extension' : role
  })
  rolesAt.set(place, roles)
  return roles
}

export const momentAt = (at: number, timeline: Timeline): Moment => {
  const sounding = soundingAt(timeline, at)
  return {
    at,
    strong: isStrong(beatAt(at, sounding), sounding),
    sounding,
    roles: sounding?.place ? rolesOver(sounding.place) : null,
  }
}

export const roleOf = (pitch: number, { roles, sounding }: Moment): Role | null =>
  roles && sounding?.place ? (roles[pitchClass(pitch - sounding.place.chord.root.pc)] ?? null) : null

const sizeOf = (material: Material): number => (material.inThirds ? material.notes.length : 7)

/** How many moments a group takes, its approach notes among them where they have places of their own. */
const leadOf = (request: MakeRequest): number =>
  request.approachTakes === 'its own place' && request.before === 'group' ? APPROACHES[request.approach].length : 0

/** The groups of a line in time: a group begins anew where the material changes, and the one before is cut. */
export const groupPlaces = (request: MakeRequest, timeline: Timeline): readonly GroupPlace[] => {
  const { plan, from, to, rhythm, figure, landing } = request
  const lead = leadOf(request)
  const size = figure.places.length + lead
  const begin = startTicks(rhythm, timeline.beat) + from
  const end = landing ? Math.min(to, landing.at - LANDING_LEADS[landing.how].length * VALUES[rhythm.value]) : to
  const moments = momentsOf(rhythm, begin, end).filter((at) => at >= 0)
  return spansOf(plan, timeline, from, Math.max(from, end)).flatMap((span, s) => {
    const mine = moments.filter((at) => (at >= span.from || (s === 0 && at < span.from)) && at < span.to)
    return Array.from({ length: Math.ceil(mine.length / size) }, (_, nth): GroupPlace => {
      const all = mine.slice(nth * size, (nth + 1) * size)
      const played = all.slice(lead).map((at) => momentAt(at, timeline))
      return { moments: played, span, nth, lead: all.slice(0, lead), isEnd: false }
    }).filter((g) => g.moments.length > 0)
  })
}

/** What leads to the last note of a line, in half steps from it; `scale` is the next note of the home scale above. */
export const LANDING_LEADS: Readonly<Record<LandingWay, readonly (number | 'scale')[]>> = {
  'half step below': [-1],
  'half step above': [1],
  'whole step below': [-2],
  'whole step above': [2],
  enclosure: ['scale', -1],
  held: [],
  any: [],
}

const THIRD = 1
const FIFTH = 2
const toneOf = (material: Material, moment: Moment, which: number): number | null => {
  if (material.inThirds) return material.notes[which]?.pc ?? null
  const place = moment.sounding?.place
  const tone = place?.chord.quality.own[which]
  return place && tone ? pitchClass(place.chord.root.pc + tone.semitones) : null
}

const isTarget = (k: number, pitch: number, moment: Moment, material: Material, { before }: MakeRequest): boolean => {
  if (before === 'group') return k === 0
  if (before === 'strong') return moment.strong && roleOf(pitch, moment) === 'chord'
  const which = before === 'root' ? 0 : before === 'third' ? THIRD : FIFTH
  return pitchClass(pitch) === toneOf(material, moment, which)
}

const approachesOf = (
  pitches: readonly number[],
  { moments, lead }: GroupPlace,
  material: Material,
  request: MakeRequest,
): readonly (readonly number[])[] => {
  const name: ApproachName = request.approach
  if (name === 'none') return pitches.map(() => [])
  return pitches.map((pitch, k) => {
    const moment = moments[k] as Moment
    const first = k === 0 && moment.at === 0
    if (!isTarget(k, pitch, moment, material, request) || (first && lead.length === 0)) return []
    const place = moment.sounding?.place
    const home = place ? rotate(place.home.inside, place.chord.root.pc) : EMPTY_SET
    const all = approachTo(name, pitch, home, material.inThirds ? material.set : EMPTY_SET)
    return lead.length > 0 && k === 0 ? all.slice(-lead.length) : all
  })
}

/** Every way a group of a span may stand within the range, without what leads to its notes. */
const bareStandings = (span: MaterialSpan, count: number, request: MakeRequest): readonly Standing[] => {
  const [low, high] = request.range
  return span.materials.flatMap((material, m) => {
    const offsets = offsetsIn(request.figure, sizeOf(material)).slice(0, count)
    const ladder = ladderOf(material, low, high)
    return ladder.flatMap((lowest, place): readonly Standing[] => {
      const pitches = offsets.map((o) => ladder[place + o])
      if (!pitches.every((p) => p !== undefined)) return []
      const inversion = material.notes.findIndex((n) => n.pc === pitchClass(lowest))
      return [{ material: m, place, inversion, pitches: pitches as readonly number[], approaches: [] }]
    })
  })
}

/** Every way each group may stand within the range. */
export const standingsOf = (groups: readonly GroupPlace[], request: MakeRequest): readonly (readonly Standing[])[] => {
  let last: { readonly span: MaterialSpan; readonly count: number; readonly bare: readonly Standing[] } | null = null
  return groups.map((group) => {
    const { span, moments } = group
    if (last?.span !== span || last.count !== moments.length)
      last = { span, count: moments.length, bare: bareStandings(span, moments.length, request) }
    if (request.approach === 'none') return last.bare
    return last.bare.map((s) => {
      const material = span.materials[s.material] as Material
      return { ...s, approaches: approachesOf(s.pitches, group, material, request) }
    })
  })
}
