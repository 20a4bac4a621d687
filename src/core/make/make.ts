import { type HeardNote, heardLine } from '../line/heard.ts'
import type { Line, LineNote } from '../line/line.ts'
import { endOf, lineOf } from '../line/line.ts'
import type { Note } from '../pitch/note.ts'
import { has, setOf } from '../pitch/pcset.ts'
import { midi, pitchClass, ticks } from '../pitch/units.ts'
import { fail, ok, type Result } from '../result.ts'
import type { Timeline } from '../time/timeline.ts'
import { bestLines, type FoundLine } from './best-lines.ts'
import { comingHome } from './coming-home.ts'
import type { Terms } from './costs.ts'
import { ladderOf } from './ground.ts'
import { type GroupPlace, groupPlaces, LANDING_LEADS, momentAt, type Standing } from './groups.ts'
import type { MakeRequest } from './request.ts'
import { startTicks, VALUES } from './rhythm.ts'
import { type Join, joinWords, leadingName } from './words.ts'

/** One group of a made line: its notes by place in the line (both ends included), what it is made of, what it adds over the chord. */
export interface MadeGroup {
  readonly from: number
  readonly to: number
  readonly of: string
  readonly adds: Adds
}
export const ADDS = ['chord tones', 'extensions', 'altered notes', 'suspensions', 'outside notes'] as const
export type Adds = (typeof ADDS)[number]

/** A line that was made and is not kept: what it costs, how its materials join, what its groups are. */
export interface Draft {
  readonly line: Line
  readonly notes: readonly HeardNote[]
  readonly terms: Terms
  readonly total: number
  readonly joins: readonly Join[]
  readonly groups: readonly MadeGroup[]
  /** Places of approach notes in the line. */
  readonly approaches: readonly number[]
  /** Mean of its notes' fades, rounded; 0..100. */
  readonly fade: number
  /** How well what went outside came home, 0..100; null where nothing did. */
  readonly landing: number | null
  readonly why: string
}

export type MakeError =
  | { readonly code: 'nothing_to_play'; readonly why: string }
  | { readonly code: 'out_of_range'; readonly why: string }
  | { readonly code: 'no_landing'; readonly why: string }
  | { readonly code: 'too_late'; readonly why: string }

interface Made extends LineNote {
  readonly approach: boolean
  readonly group: number
}

const WITHOUT_TIME = 30

/** A group's notes with their approaches: in moments of their own, else in half the time of the note before. */
const notesOf = (s: Standing, place: GroupPlace, index: number, length: number): readonly Made[] => {
  const names = place.span.materials[s.material]?.notes ?? []
  return s.pitches.flatMap((pitch, k): readonly Made[] => {
    const at = place.moments[k]?.at ?? 0
    const before = s.approaches[k] ?? []
    const note: Note | undefined = names.find((n) => n.pc === pitchClass(pitch))
    const own = k === 0 ? place.lead : []
    const share = Math.floor(length / 2 / Math.max(1, before.length))
    const led = before.map((p, i): Made => {
      const begin = own.length > 0 ? (own[own.length - before.length + i] ?? at) : at - share * (before.length - i)
      return {
        ...{ at: ticks(begin), for: ticks(own.length > 0 ? length : share), pitch: midi(p) },
        ...{ note: note && leadingName(note, p - pitch), approach: true, group: index },
      }
    })
    return [...led, { at: ticks(at), for: ticks(length), pitch: midi(pitch), note, approach: false, group: index }]
  })
}

/** Each note ends where the next begins, at the latest. */
const inTurn = (notes: readonly Made[]): readonly Made[] => {
  const sorted = notes.filter((n) => n.at >= 0).sort((a, b) => a.at - b.at)
  return sorted.map((n, i) => {
    const next = sorted[i + 1]
    return next && endOf(n) > next.at ? { ...n, for: ticks(next.at - n.at) } : n
  })
}

const ADDS_OF = { chord: 0, extension: 1, altered: 2, suspension: 3, outside: 4 } as const

const addsOf = (notes: readonly HeardNote[]): Adds =>
  ADDS[Math.max(0, ...notes.map((n) => (n.role === null ? 0 : ADDS_OF[n.role])))] ?? 'chord tones'

const draftOf = (
  { standings, terms, total }: FoundLine,
  places: readonly GroupPlace[],
  request: MakeRequest,
  timeline: Timeline,
): Draft => {
  const length = VALUES[request.rhythm.value]
  const ended = request.landing !== null
  const made = inTurn(
    standings.flatMap((s, i) => {
      const place = places[i] as GroupPlace
      const isEnd = ended && i === standings.length - 1
      return notesOf(s, place, i, isEnd ? Math.max(length, landingLength(request, timeline)) : length)
    }),
  ).filter((n) => n.for > WITHOUT_TIME)
  const line = lineOf(made.map(({ approach: _, group: __, ...n }) => n))
  const notes = heardLine(line, timeline, request.weights)
  const approaches = made.flatMap((n, i) => (n.approach ? [i] : []))
  const byGroup: number[][] = standings.map(() => [])
  for (const [i, n] of made.entries()) if (!n.approach) byGroup[n.group]?.push(i)
  const groups = standings.map((s, g): MadeGroup => {
    const own = byGroup[g] ?? []
    const span = (places[g] as GroupPlace).span
    return {
      from: own[0] ?? 0,
      to: own.at(-1) ?? 0,
      of: span.materials[s.material]?.name ?? span.name,
      adds: addsOf(own.map((i) => notes[i] as HeardNote)),
    }
  })
  const joins = places.flatMap((place, i): readonly Join[] => {
    const before = places[i - 1]
    const [from, to] = [groups[i - 1], groups[i]]
    if (place.nth !== 0 || !before || !from || !to) return []
    const led = notes.slice(from.to + 1, to.from)
    const names = [before.span.name, place.span.name] as const
    return [joinWords(notes[from.to] as HeardNote, led, notes[to.from] as HeardNote, names)]
  })
  const fade = Math.round(notes.reduce((sum, n) => sum + n.fade, 0) / Math.max(1, notes.length))
  const landing = comingHome(notes.filter((_, i) => !made[i]?.approach))
  return { line, notes, terms, total, joins, groups, approaches, fade, landing, why: whyOf(terms, joins, landing) }
}

const whyOf = (terms: Terms, joins: readonly Join[], landing: number | null): string => {
  const smooth = joins.filter((j) => /half step|held/.test(j.how)).length
  const told = [
    joins.length === 0
      ? 'One material throughout'
      : `${smooth} of ${joins.length} ${joins.length === 1 ? 'change' : 'changes'} joined by a half step or a held note`,
    ...(terms.turns > 0 ? [`${terms.turns / 2} ${terms.turns === 2 ? 'turn' : 'turns'}`] : []),
    ...(terms.leaps > 0 ? ['with leaps over a fifth'] : []),
    ...(terms.strong > 0 ? ['notes that want to move stand on strong beats'] : []),
    ...(landing === null ? [] : [landing >= 70 ? 'what goes out comes home' : 'what goes out comes home only in part']),
  ]
  return `${told.join('; ')}.`
}

const landingLength = ({ landing }: MakeRequest, timeline: Timeline): number => {
  const sounding = landing && momentAt(landing.at, timeline).sounding
  return sounding && landing ? Math.min(sounding.to - landing.at, timeline.beat * timeline.beatsInBar) : 0
}

/** The last note of a line, in every octave, with what leads to it. */
const landingPlace = (
  { landing, range, rhythm }: MakeRequest,
  timeline: Timeline,
): { readonly place: GroupPlace; readonly ends: readonly Standing[] } | null => {
  const moment = landing && momentAt(landing.at, timeline)
  const place = moment?.sounding?.place
  if (!landing || !moment || !place) return null
  const { chord, home } = place
  const pc = pitchClass(chord.root.pc + landing.up)
  const above = has(home.inside, pitchClass(landing.up + 1)) ? 1 : 2
  const led = LANDING_LEADS[landing.how].map((by) => (by === 'scale' ? above : by))
  const lead = led.map((_, i) => landing.at - VALUES[rhythm.value] * (led.length - i))
  const material = { name: chord.symbol, root: chord.root, set: setOf([pc]), notes: [], inThirds: false }
  const span = { from: landing.at, to: landing.at + 1, name: chord.symbol, materials: [material] as const }
  const ends = ladderOf(material, range[0], range[1]).map(
    (p, i): Standing => ({ material: 0, place: i, inversion: 0, pitches: [p], approaches: [led.map((by) => p + by)] }),
  )
  return { place: { moments: [moment], span, nth: 0, lead, isEnd: true }, ends }
}

/** Why there is no place for a single note. */
const nothingIn = ({ landing, to }: MakeRequest, begin: number): MakeError => {
  if (landing && landing.at <= begin) return { code: 'no_landing', why: 'The line would land before it begins.' }
  if (begin >= to) return { code: 'too_late', why: 'The rhythm begins after the bars have ended.' }
  return { code: 'nothing_to_play', why: 'No chord sounds there, so there is nothing to play.' }
}

/**
 * The cheapest lines of a figure through a plan, best first, each with what it costs and how it joins. Pure. Source: make
 * page.
 */
export const makeLines = (request: MakeRequest, timeline: Timeline): Result<readonly Draft[], MakeError> => {
  const run = groupPlaces(request, timeline)
  const begin = request.from + startTicks(request.rhythm, timeline.beat)
  if (run.length === 0) return fail(nothingIn(request, begin))
  const end = request.landing && landingPlace(request, timeline)
  if (request.landing && (!end || end.ends.length === 0))
    return fail({ code: 'no_landing', why: 'No chord sounds where the line is to land.' })
  const places = end ? [...run, end.place] : run
  const found = bestLines(places, request, end ? end.ends : null)
  if (found.length === 0)
    return fail({
      code: 'out_of_range',
      why: 'The figure does not fit into this range: make it wider or the figure smaller.',
    })
  const early = begin < 0 ? ' What would come before the first bar is left out: the chart has no pickup.' : ''
  return ok(found.map((f) => draftOf(f, places, request, timeline)).map((d) => ({ ...d, why: d.why + early })))
}
