import { heardLine } from '../line/heard.ts'
import { type Line, lineOf } from '../line/line.ts'
import { lineThrough } from '../make/through.ts'
import type { Overlay } from '../material/overlay.ts'
import { has } from '../pitch/pcset.ts'
import { midi, pitchClass, ticks } from '../pitch/units.ts'
import { homeOverlay } from '../reading/home.ts'
import { standingAt } from '../reading/role.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import { type PlannedFrom, plannedSteps } from './plan.ts'
import { type Stay, staysIn } from './stays.ts'

/** By whose ears a line is made, and between which MIDI numbers. */
export interface LineManner {
  readonly school: School
  readonly weights: Weights
  readonly range: readonly [number, number]
}

/** An eighth run that goes on by the nearest note and turns now and then. */
const RUN: Omit<Parameters<typeof lineThrough>[1], keyof LineManner> = {
  ...{ figure: { places: [1], step: 1 }, approach: 'none', before: 'group', approachTakes: 'time before' },
  ...{ rhythm: { value: '1/8', start: 1, rest: null }, path: 'wave', wave: 4, order: 'alternate', inversion: 'climb' },
}

interface Laid {
  readonly from: number
  readonly to: number
  readonly overlay: Overlay
}

/** What is laid when, through all of the form; the home scales where nothing is. */
const laidThrough = (plan: readonly PlannedFrom[], { soundings, length }: Timeline): readonly Laid[] =>
  plan.flatMap(({ from, overlay }, i): readonly Laid[] => {
    const to = plan[i + 1]?.from ?? length
    if (overlay) return to > from ? [{ from, to, overlay }] : []
    return soundings.flatMap((s) => {
      const [begin, end] = [Math.max(from, s.from), Math.min(to, s.to)]
      return s.place && end > begin ? [{ from: begin, to: end, overlay: homeOverlay(s.place.home.first) }] : []
    })
  })

const isToneAt = (pitch: number, at: number, timeline: Timeline): boolean => {
  const place = soundingAt(timeline, at)?.place
  return place ? standingAt(place, pitchClass(pitch - place.chord.root.pc)).role === 'chord' : false
}

/** Pitches from the nearest to a pitch outward, within a range. */
const nearest = (to: number, [low, high]: readonly [number, number]): readonly number[] =>
  Array.from({ length: high - low + 1 }, (_, i) => low + i).sort((a, b) => Math.abs(a - to) - Math.abs(b - to) || a - b)

/** The last note outside and the first at home, brought so close that a step leads from one to the other. */
const broughtHome = (line: Line, stay: Stay, timeline: Timeline, range: readonly [number, number]): Line => {
  const after = line.findIndex((n) => n.at >= stay.to)
  const [last, first, before] = [line[after - 1], line[after], line[after - 2]]
  if (!last || !first || after < 1 || last.at < stay.from || stay.overlay === null) return line
  const { overlay } = stay
  const place = soundingAt(timeline, last.at)?.place
  const isAway = (p: number): boolean =>
    place !== null && place !== undefined && !has(place.home.inside, pitchClass(p - place.chord.root.pc))
  const ways = nearest(last.pitch, range)
    .filter((p) => has(overlay.set, pitchClass(p)) && p !== before?.pitch && Math.abs(p - (before?.pitch ?? p)) <= 7)
    .flatMap((p) =>
      [-1, 1, -2, 2]
        .filter((by) => isToneAt(p + by, first.at, timeline))
        .map((by) => ({
          p,
          to: p + by,
          cost: (isAway(p) ? 0 : 6) + (Math.abs(by) - 1) * 4 + Math.abs(p - last.pitch),
        })),
    )
    .sort((a, b) => a.cost - b.cost)
  const way = ways[0]
  if (!way) return line
  return line.map((n) => (n === last ? { ...n, pitch: midi(way.p) } : n === first ? { ...n, pitch: midi(way.to) } : n))
}

const withoutNames = (line: Line): Line =>
  lineOf(line.map(({ at, for: length, pitch }) => ({ at, for: length, pitch })))

/** A line through a plan, in eighths, that comes home by step wherever the plan does. */
export const lineOfPlan = (
  plan: readonly PlannedFrom[],
  { school, weights, range }: LineManner,
  timeline: Timeline,
): Line => {
  const run = withoutNames(lineThrough(laidThrough(plan, timeline), { ...RUN, range, school, weights }, timeline))
  const stays = staysOf(plan, timeline, weights)
  const home = stays.reduce((line, stay, i) => {
    const next = stays[i + 1]
    return stay.isOut && next && !next.isOut ? broughtHome(line, stay, timeline, range) : line
  }, run)
  const [last, end] = [stays.at(-1), home.at(-1)]
  return last?.isOut && end
    ? broughtHome(home, { ...last, to: end.at }, timeline, range)
    : endedAtHome(home, timeline, range)
}

/** The last note on the nearest tone of its chord. */
const endedAtHome = (line: Line, timeline: Timeline, range: readonly [number, number]): Line => {
  const last = line.at(-1)
  const to = last && nearest(last.pitch, range).find((p) => isToneAt(p, last.at, timeline))
  return last && to !== undefined ? [...line.slice(0, -1), { ...last, pitch: midi(to) }] : line
}

/** The stays a plan asks for, before anything was played. */
export const staysOf = (plan: readonly PlannedFrom[], timeline: Timeline, weights: Weights): readonly Stay[] => {
  const whole = [{ at: ticks(0), for: ticks(timeline.length), pitch: midi(60) }]
  return staysIn(plannedSteps(plan, heardLine(whole, timeline, weights), timeline, weights))
}
