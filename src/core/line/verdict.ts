import { materialNamed } from '../material/material.ts'
import { pitchClass } from '../pitch/units.ts'
import type { School } from '../reading/school.ts'
import { listed } from '../reading/sentence.ts'
import type { Timeline } from '../time/timeline.ts'
import type { Cell } from './cells.ts'
import type { HeardNote } from './heard.ts'
import { endOf } from './line.ts'
import type { Figure, Melodic } from './melodic.ts'
import type { Landed, OutsideStretch } from './outside.ts'
import type { Grouping, Sequence } from './patterns.ts'
import { coverOf } from './spans.ts'

/** A sentence of a verdict, ASCII, with the notes it speaks of (places in the line, from 0). */
export interface Sentence {
  readonly text: string
  readonly notes: readonly number[]
  /** Whether it praises, tells, or finds fault. */
  readonly tone: 'good' | 'plain' | 'fault'
}

const NAME = /\b[A-G](?:[#b]|\d|[a-z])*(?:\([^)]*\))?/g

/** What a sentence says whatever key it is read in, by which a player's dispute of it is kept. */
export const disputeKey = ({ text, notes }: Sentence): string => `${notes.join(' ')}: ${text.replace(NAME, '_')}`

/** All that was found in a line, before it is judged. */
export interface Findings {
  readonly notes: readonly HeardNote[]
  readonly melodic: readonly (Melodic | null)[]
  readonly figures: readonly Figure[]
  readonly cells: readonly Cell[]
  readonly stretches: readonly OutsideStretch[]
  readonly sequences: readonly Sequence[]
  readonly groupings: readonly Grouping[]
  readonly timeline: Timeline
}

const range = (from: number, to: number): readonly number[] => Array.from({ length: to - from + 1 }, (_, i) => from + i)
const span = (from: number, to: number): string => (from === to ? `Note ${from + 1}` : `Notes ${from + 1}-${to + 1}`)
const chordOf = (n: HeardNote): string => n.sounding?.spot.spot.chord.symbol ?? ''
const said = (n: HeardNote): string => `${n.name.name} (the ${n.degree} of ${chordOf(n)})`
const beats = (ticks: number, { beat }: Timeline): string => {
  const count = Math.round((ticks / beat) * 10) / 10
  return count === 1 ? 'a beat' : `${count} beats`
}

/** `an enclosure`, `a half step down`. */
export const landingWords = (how: Landed['how']): string =>
  how === 'enclosure' ? 'an enclosure' : how === 'held' ? 'a held note' : `a ${how}`

/** Whether a stretch goes on with what the dominant before it had: its own sound, over the chord it went to. */
const heldOver = (s: OutsideStretch, notes: readonly HeardNote[]): string | null => {
  const first = notes[s.from] as HeardNote
  const before = notes[s.from - 1]?.sounding?.place
  const here = first.sounding?.place?.chord
  if (!before || !here || before.chord.family !== 'dominant' || notes[s.to]?.sounding?.from !== first.sounding?.from)
    return null
  if (pitchClass(here.root.pc - before.chord.root.pc) !== 5) return null
  const sound = DOMINANT_SOUNDS.find((set) =>
    notes.slice(s.from, s.to + 1).every((n) => (set >> pitchClass(n.pitch - before.chord.root.pc)) & 1),
  )
  return sound === undefined ? null : before.chord.symbol
}
const DOMINANT_SOUNDS = (['mixolydian', 'altered', 'half-whole', 'phrygian dominant'] as const).map(
  (name) => materialNamed(name).set,
)

const onStretch = (s: OutsideStretch, { notes }: Findings, school: School): Sentence => {
  const where = `${span(s.from, s.to)} ${s.from === s.to ? 'is' : 'are'} away from home (fade ${s.mean}, ${s.peak} at most)`
  const told = range(s.from, s.to)
  if (!s.landing)
    return { text: `${where} and nothing answers within two beats: unresolved.`, notes: told, tone: 'fault' }
  const on = notes[s.landing.on] as HeardNote
  const to = `${said(on)} on beat ${Math.round(on.beat * 100) / 100}`
  const all = [...told, s.landing.on]
  const over = heldOver(s, notes)
  if (over !== null && s.landing.how !== 'cut')
    return {
      text: `${span(s.from, s.to)} hold${s.from === s.to ? 's' : ''} ${over} over: a delayed landing, by ${landingWords(s.landing.how)} to ${to}.`,
      notes: all,
      tone: 'plain',
    }
  if (s.landing.how !== 'cut')
    return {
      text: `${where} and come${s.from === s.to ? 's' : ''} home by ${landingWords(s.landing.how)} to ${to}.`,
      notes: all,
      tone: 'good',
    }
  return school.wayHome === 'angular'
    ? { text: `${where}; a leap to ${to} ends it, which an angular player wants.`, notes: all, tone: 'plain' }
    : { text: `${where} and cut off by a leap to ${to}: no step leads home.`, notes: all, tone: 'fault' }
}

/** A long note, in beats: what may pass must not rest so long. */
const RESTS_FROM = 1

/** A suspension that goes on down by step to a chord tone has done what it is for. */
const fallsHome = (n: HeardNote, next: HeardNote | undefined): boolean =>
  next !== undefined && [-1, -2].includes(next.pitch - n.pitch) && next.role === 'chord'

/** How a suspension stays where it may only pass: it ends the line, rests too long, or is not wanted at all. */
type Resting = 'kept out' | 'at the end' | 'too long'

const restingOf = (i: number, { notes, timeline, melodic }: Findings, school: School): Resting | null => {
  const n = notes[i] as HeardNote
  if (n.role !== 'suspension' || n.blue || school.suspensions === 'free') return null
  const brief = n.for <= RESTS_FROM * timeline.beat && fallsHome(n, notes[i + 1])
  if (melodic[i]?.kind === 'delayed resolution' || brief) return null
  if (school.suspensions === 'kept out' && !melodic[i]) return 'kept out'
  if (i === notes.length - 1) return 'at the end'
  return n.for >= RESTS_FROM * timeline.beat ? 'too long' : null
}

/** Places in the line where a suspension rests by this school. */
export const restingSuspensions = (found: Findings, school: School): readonly number[] =>
  found.notes.flatMap((_, i) => (restingOf(i, found, school) ? [i] : []))

const RESTING_WORDS: Readonly<Record<Resting, (n: HeardNote, timeline: Timeline) => string>> = {
  'kept out': (n) => `Note ${n.n + 1}, ${said(n)}, is kept out by this school.`,
  'at the end': (n) => `The line ends on ${said(n)}, a suspension: it asks to go on down.`,
  'too long': (n, timeline) =>
    `Note ${n.n + 1}, ${said(n)}, rests for ${beats(n.for, timeline)}: it may pass, not rest.`,
}

const onRests = (found: Findings, school: School): readonly Sentence[] =>
  found.notes.flatMap((n, i): readonly Sentence[] => {
    const how = restingOf(i, found, school)
    return how ? [{ text: RESTING_WORDS[how](n, found.timeline), notes: [i], tone: 'fault' }] : []
  })

const onStrongBeats = (f: Findings, school: School): readonly Sentence[] => {
  const cover = coverOf(f.stretches, f.notes.length)
  return f.notes.flatMap((n, i): readonly Sentence[] => {
    const stretch = cover[i]
    // A stretch that does not land is found fault with as a whole.
    if (!n.strong || n.role !== 'outside' || n.blue || f.melodic[i] || stretch?.landing === null) return []
    const within = stretch !== undefined
    if (school.strongBeats === 'chromatic welcome')
      return within
        ? []
        : [{ text: `Note ${i + 1}, ${said(n)}, stands on a strong beat and does not land.`, notes: [i], tone: 'fault' }]
    return [
      {
        text: `Note ${i + 1}, ${said(n)}, stands on a strong beat, where a chord tone would say the change.`,
        notes: [i],
        tone: within ? 'plain' : 'fault',
      },
    ]
  })
}

/** The natural third over a minor chord, not on its way anywhere. */
const onThirds = ({ notes, melodic, stretches }: Findings): readonly Sentence[] => {
  const cover = coverOf(
    stretches.filter((s) => s.to - s.from > 1),
    notes.length,
  )
  return notes.flatMap((n, i): readonly Sentence[] => {
    const chord = n.sounding?.place?.chord
    const third =
      chord &&
      (chord.family === 'minor' || chord.family === 'half-diminished') &&
      pitchClass(n.pitch - chord.root.pc) === 4
    const alone = !n.blue && !melodic[i] && !cover[i]
    return third && alone
      ? [{ text: `Note ${i + 1}, ${said(n)}, is the major third over a minor chord.`, notes: [i], tone: 'fault' }]
      : []
  })
}

const onTime = ({ notes, melodic }: Findings): readonly Sentence[] =>
  notes.flatMap((n, i): readonly Sentence[] => {
    const next = n.following?.spot.spot.chord.symbol
    if (melodic[i]?.kind === 'anticipation')
      return [{ text: `Note ${i + 1}, ${n.name.name}, comes early: it belongs to ${next}.`, notes: [i], tone: 'plain' }]
    const to = notes[i + 1]
    return melodic[i]?.kind === 'delayed resolution' && to
      ? [
          {
            text: `Note ${i + 1}, ${n.name.name}, hangs over from the chord before and resolves late to ${said(to)}.`,
            notes: [i, i + 1],
            tone: 'plain',
          },
        ]
      : []
  })

const onShapes = (f: Findings): readonly Sentence[] => [
  ...f.figures
    .filter((g) => g.kind === 'enclosure')
    .map(
      (g): Sentence => ({
        text: `${span(g.from, g.to - 1)} enclose ${said(f.notes[g.to] as HeardNote)}.`,
        notes: range(g.from, g.to),
        tone: 'good',
      }),
    ),
  ...f.cells
    .filter((c) => c.how === 'pair')
    .map(
      (c): Sentence => ({
        text: `${span(c.from, c.to)} take the triads ${listed(c.overlay?.groups?.map((g) => g.name) ?? [])} by turns.`,
        notes: range(c.from, c.to),
        tone: 'plain',
      }),
    ),
  ...f.cells
    .filter(
      (c) =>
        c.overlay &&
        c.how !== 'home' &&
        c.how !== 'chord' &&
        c.how !== 'triad' &&
        c.how !== 'pair' &&
        c.how !== 'thirds',
    )
    .map(
      (c): Sentence => ({
        text: `${span(c.from, c.to)} are heard as ${c.overlay?.name} over ${chordOf(f.notes[c.from] as HeardNote)}.`,
        notes: range(c.from, c.to),
        tone: 'plain',
      }),
    ),
  ...f.sequences.map(
    (s): Sentence => ({
      text: `${span(s.from, s.to)} repeat a figure of ${s.length} notes ${s.times} times, each ${Math.abs(s.by)} ${s.tonal ? 'step' : 'semitone'}${Math.abs(s.by) === 1 ? '' : 's'} ${s.by > 0 ? 'up' : 'down'}${s.tonal ? ' the scale' : ''}.`,
      notes: range(s.from, s.to),
      tone: 'plain',
    }),
  ),
  ...f.groupings.map(
    (g): Sentence => ({
      text: `${span(g.from, g.to)} go in groups of ${g.length} against the beat; they meet it again after ${g.meetsAfterBeats} beats.`,
      notes: range(g.from, g.to),
      tone: 'plain',
    }),
  ),
]

const onEnding = ({ notes, stretches, timeline }: Findings): readonly Sentence[] => {
  const last = notes.at(-1)
  if (
    !last ||
    last.role === null ||
    last.role === 'suspension' ||
    stretches.some((s) => s.to === last.n && s.landing === null)
  )
    return []
  const tone = last.role === 'chord' || last.role === 'extension' ? 'good' : 'plain'
  const held = endOf(last) - last.at >= timeline.beat ? ', held' : ''
  return [{ text: `It ends on ${said(last)}${held}.`, notes: [last.n], tone }]
}

/** The verdict of one school, in sentences that point at notes: faults first, then what was done, by where it stands. */
export const verdictOf = (found: Findings, school: School): readonly Sentence[] => {
  const all = [
    ...found.stretches.map((s) => onStretch(s, found, school)),
    ...onRests(found, school),
    ...onStrongBeats(found, school),
    ...onThirds(found),
    ...onTime(found),
    ...onShapes(found),
    ...onEnding(found),
  ]
  const rank = { fault: 0, plain: 1, good: 1 } as const
  return [...all].sort((a, b) => rank[a.tone] - rank[b.tone] || (a.notes[0] ?? 0) - (b.notes[0] ?? 0))
}
