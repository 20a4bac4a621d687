import { heardLine } from '../line/heard.ts'
import { endOf, type Line, type LineNote, lineOf } from '../line/line.ts'
import { materialNamed } from '../material/material.ts'
import { notesOverlay, type Overlay, placeOn } from '../material/overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { midi, pitchClass, ticks } from '../pitch/units.ts'
import { standingAt } from '../reading/role.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import { type PlayersManner, playedLine } from './manner.ts'
import type { PlannedFrom } from './plan.ts'
import { type LineManner, lineOfPlan, staysOf } from './plan-line.ts'
import type { PlayedNote } from './played.ts'
import type { Stay } from './stays.ts'

/** What the simulated player can do wrong on purpose. */
export const PLANTED = [
  ...(['overstay', 'missed step', 'no landing', 'late landing', 'early landing', 'rushing'] as const),
  ...(['dragging', 'uneven', 'resting suspension', 'one device', 'inside', 'silence'] as const),
] as const
export type Planted = (typeof PLANTED)[number]

/** What is played, and how; `tempo` in beats a minute. */
export interface SimulatedAsk extends LineManner {
  readonly plan: readonly PlannedFrom[]
  readonly tempo: number
  readonly manner: PlayersManner
  readonly fault: Planted | null
}

type Plan = readonly PlannedFrom[]
const one = <T>(all: readonly T[], rng: () => number): T | undefined => all[Math.floor(rng() * all.length)]

interface WayHome {
  readonly out: Stay
  readonly home: Stay
}

/** Where the plan comes home: stays outside that are followed by one at home. */
const waysHome = (stays: readonly Stay[]): readonly WayHome[] =>
  stays.flatMap((out, i) => {
    const home = stays[i + 1]
    return out.isOut && home && !home.isOut ? [{ out, home }] : []
  })

/** The plan with a stay that begins later or earlier than it should. */
const begunAt = (plan: Plan, from: number, at: number): Plan =>
  at > from
    ? plan.filter((p) => p.from < from || p.from > at).concat(movedTo(plan, from, at))
    : plan.filter((p) => p.from <= at || p.from > from).concat(movedTo(plan, from, at))

const movedTo = (plan: Plan, from: number, at: number): Plan => {
  const laid = plan.filter((p) => p.from <= Math.max(from, at)).at(-1)
  return laid ? [{ ...laid, from: at }] : []
}

const inOrder = (plan: Plan): Plan => [...plan].sort((a, b) => a.from - b.from)

/** The plan with something else laid for a stay, and then as it was. */
const relaid = (plan: Plan, { from, to }: Stay, overlay: Overlay | null): Plan => {
  const goesOn = plan.filter((p) => p.from <= to).at(-1)
  const rest = plan.filter((p) => p.from < from || p.from >= to)
  const end = goesOn && !rest.some((p) => p.from === to) ? [{ ...goesOn, from: to }] : []
  return inOrder([...rest, { from, overlay }, ...end])
}

/** The notes that are neither in what is laid nor at home; null where those are too few to play on. */
const foreignTo = ({ from, overlay }: Stay, timeline: Timeline): Overlay | null => {
  const place = soundingAt(timeline, from)?.place
  if (!place) return null
  const [first, ...rest] = Array.from({ length: 12 }, (_, pc) => pitchClass(pc)).filter(
    (pc) => !(overlay && has(overlay.set, pc)) && !has(place.home.inside, pitchClass(pc - place.chord.root.pc)),
  )
  return first === undefined || rest.length < 2
    ? null
    : notesOverlay([plainNote(first), ...rest.map((pc) => plainNote(pc))])
}

/** What is planned for the plan that is really played. */
type Replanned = (plan: Plan, stays: readonly Stay[], timeline: Timeline, rng: () => number) => Plan | null

const atBorder =
  (moved: (way: WayHome, timeline: Timeline) => number): Replanned =>
  (plan, stays, timeline, rng) => {
    const way = one(waysHome(stays), rng)
    if (!way) return null
    const at = way.out.to + moved(way, timeline)
    return at <= way.out.from ? null : inOrder(begunAt(plan, way.out.to, at))
  }

/** Laid a whole step above every chord it is colour over most. */
const PENTATONIC = materialNamed('minor pentatonic')

const barOf = ({ beat, beatsInBar }: Timeline): number => beat * beatsInBar

const REPLANNED: Readonly<Partial<Record<Planted, Replanned>>> = {
  overstay: atBorder(({ home }, timeline) => Math.min(home.to - home.from, 2 * barOf(timeline))),
  'late landing': atBorder(({ home }, { beat }) => Math.min(home.to - home.from - beat, 1.5 * beat)),
  'early landing': atBorder(({ out }, { beat }) => -Math.min(2 * beat, (out.to - out.from) / 2)),
  inside: (plan, stays, _, rng) => {
    const out = one(
      stays.filter((s) => s.isOut),
      rng,
    )
    return out ? relaid(plan, out, null) : null
  },
  'missed step': (plan, stays, timeline, rng) => {
    const places = stays.flatMap((stay) => {
      const strange = stay.isOut && stay.to - stay.from >= barOf(timeline) / 2 ? foreignTo(stay, timeline) : null
      return strange ? [{ stay, strange }] : []
    })
    const place = one(places, rng)
    return place ? relaid(plan, place.stay, place.strange) : null
  },
  'one device': (_, __, { soundings }) =>
    new Set(soundings.map((s) => s.place?.chord.root.pc)).size < 3
      ? null
      : soundings.flatMap(({ from, place }): Plan => {
          return place ? [{ from, overlay: placeOn(plainNote(pitchClass(place.chord.root.pc + 2)), PENTATONIC) }] : []
        }),
}

type Replayed = (
  line: Line,
  stays: readonly Stay[],
  ask: SimulatedAsk,
  timeline: Timeline,
  rng: () => number,
) => Line | null

const without = (line: Line, from: number, to: number): Line => lineOf(line.filter((n) => n.at < from || n.at >= to))

const REPLAYED: Readonly<Partial<Record<Planted, Replayed>>> = {
  'no landing': (line, stays, _, timeline, rng) => {
    const way = one(
      waysHome(stays).filter(({ home }) => home.to - home.from >= 3 * timeline.beat),
      rng,
    )
    return way ? without(line, way.out.to, way.out.to + 3.5 * timeline.beat) : null
  },
  silence: (line, stays, _, timeline, rng) => {
    const bar = barOf(timeline)
    const home = one(
      stays.filter((s) => !s.isOut && s.to - s.from >= bar && s.from + 3.5 * bar <= timeline.length),
      rng,
    )
    return home ? without(line, home.from + bar, home.from + 3.25 * bar) : null
  },
  'resting suspension': (line, stays, { weights }, timeline, rng) => {
    const heard = heardLine(line, timeline, weights)
    const home = stays.filter((s) => !s.isOut)
    const places = heard.filter(
      (n) =>
        home.some((s) => n.at >= s.from + timeline.beat && n.at + 3 * timeline.beat <= s.to) &&
        suspensionNear(n, timeline) !== null,
    )
    const at = one(places, rng)
    const pitch = at && suspensionNear(at, timeline)
    if (!at || pitch === null || pitch === undefined) return null
    const end = at.at + 2 * timeline.beat
    const held: LineNote = { at: at.at, for: ticks(end - at.at), pitch: midi(pitch) }
    return lineOf([...line.filter((n) => endOf(n) <= at.at || n.at >= end), held])
  },
}

/** The nearest pitch that may only pass over the chord which sounds for two beats from a note on; null where there is none. */
const suspensionNear = (n: LineNote, timeline: Timeline): number | null => {
  const sounding = soundingAt(timeline, n.at)
  const place = sounding?.place ?? null
  if (!sounding) return null
  if (!place || n.at < sounding.from + 2 * timeline.beat || sounding.to < n.at + 2 * timeline.beat) return null
  const is = (p: number): boolean => {
    const { role, inHome, blue } = standingAt(place, pitchClass(p - place.chord.root.pc))
    return role === 'suspension' && inHome && !blue
  }
  return [0, 1, -1, 2, -2].map((by) => n.pitch + by).find(is) ?? null
}

const REMANNERED: Readonly<Partial<Record<Planted, Partial<PlayersManner>>>> = {
  rushing: { ahead: 45 },
  dragging: { ahead: -55 },
  uneven: { looseness: 50 },
}

/**
 * A chorus played over a plan by the simulated player, with one fault planted where that is asked for. Null where the plan
 * has no place for that fault. The same for the same seed.
 */
export const simulatedTake = (
  ask: SimulatedAsk,
  timeline: Timeline,
  rng: () => number,
): readonly PlayedNote[] | null => {
  const { fault, manner, tempo } = ask
  const plan = inOrder(ask.plan)
  const stays = staysOf(plan, timeline, ask.weights)
  const replan = fault === null ? undefined : REPLANNED[fault]
  const played = replan ? replan(plan, stays, timeline, rng) : plan
  if (!played) return null
  const line = lineOfPlan(played, ask, timeline)
  const replay = fault === null ? undefined : REPLAYED[fault]
  const changed = replay ? replay(line, stays, ask, timeline, rng) : line
  const how = { ...manner, ...(fault === null ? {} : REMANNERED[fault]) }
  return changed && playedLine(changed, how, tempo, timeline, rng)
}
