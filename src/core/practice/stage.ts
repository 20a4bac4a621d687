import { beatOf } from '../chart/chart.ts'
import type { KeptOverride } from '../chart/overrides.ts'
import { readChart } from '../chart/read-chart.ts'
import { heardOver, tonesOf } from '../chord/chord.ts'
import type { Line } from '../line/line.ts'
import { inKey } from '../make/keys.ts'
import { type LaidSpan, lineThrough } from '../make/through.ts'
import { notesOverlay, type Overlay, slipOverlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { type Note, plainNote, readNote } from '../pitch/note.ts'
import { type Interval, UNISON } from '../pitch/transpose.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeName } from '../reading/home.ts'
import { readOver } from '../reading/read.ts'
import type { School } from '../reading/school.ts'
import type { Weights } from '../reading/weights.ts'
import { barsAt, type Span, spanOfBars } from '../time/bars.ts'
import type { Sounding } from '../time/timeline.ts'
import { readTune, type Tune } from '../tune.ts'
import { homeKeyOf, type ItemOf } from './items.ts'
import { OUTSIDES } from './outsides.ts'

/** What an item is played from, beside what it says itself: its chart, what is laid there, its line. All concert pitch. */
export interface Sources {
  readonly text?: string | undefined
  readonly overrides?: readonly KeptOverride[] | null
  /** The overlays of its route, by bar and beat. */
  readonly steps?: readonly {
    readonly bar: number
    readonly beat: number
    readonly beats: number
    readonly overlay: string
  }[]
  readonly line?: Line
  /** Another chart, whose changes are what is outside. */
  readonly otherText?: string | undefined
}

export interface StageSettings {
  readonly school: School
  readonly weights: Weights
  /** What everything is moved by to be read: a player's written pitch. */
  readonly written?: Interval
}

/** Where one is to be, from a tick to another: outside with an overlay, or in with the home scale. */
export interface Cue extends Span {
  readonly where: 'out' | 'in'
  readonly name: string
  readonly fade: number
}

/** All of one round in one key: what the band plays, what lies over it, and where it is out. Concert pitch. */
export interface Stage {
  readonly tune: Tune
  readonly span: Span
  readonly laid: readonly LaidSpan[]
  readonly line: Line | null
  readonly cues: readonly Cue[]
}

/** A way a round is played: what is laid in it. `null` of a sound: freely. */
export type RoundVariant =
  | { readonly kind: 'whole' }
  | { readonly kind: 'only'; readonly sound: number }
  | { readonly kind: 'turns' }
  | { readonly kind: 'free' }

/** The rounds an item asks for in each key: of sounds that are combined each alone, then by turns, then freely. */
export const variantsOf = ({ kind, sounds }: ItemOf): readonly RoundVariant[] =>
  kind === 'combine'
    ? [...(sounds ?? []).map((_, sound) => ({ kind: 'only', sound }) as const), { kind: 'turns' }, { kind: 'free' }]
    : [{ kind: 'whole' }]

/** From this fade on a bar counts as out. */
const OUT = 25
const BLOCK = 4
const TURN = 2

const vamp = (chord: string, bars: number): string =>
  `${Array.from({ length: bars }, (_, i) => `| ${i === 0 ? chord : '%'} `).join('')}|`

/** The chart of an item that brings none: its chord and where that goes, or its chord alone for as long as a block lasts. */
const ownText = ({ kind, chord, next, block = BLOCK }: ItemOf): string => {
  const symbol = chord ?? 'C6'
  if (kind === 'out-in') return vamp(symbol, 2 * block)
  return next ? `${vamp(symbol, 2)}${vamp(next, 2).slice(1)}` : vamp(symbol, BLOCK)
}

const noteOf = (name: string): Note | null => {
  const read = readNote(name, 0)
  return read.ok ? read.value.note : null
}

/** From the key an item stands in to another as it is named, by the shorter way. */
const intervalTo = (home: Note, key: string): Interval => {
  const to = noteOf(key)
  if (!to || to.pc === home.pc) return UNISON
  const [semitones, letters] = [(to.pc - home.pc + 12) % 12, (to.letter - home.letter + 7) % 7]
  return semitones > 6 ? { letters: letters - 7, semitones: semitones - 12 } : { letters, semitones }
}

/** An overlay in another key, its root spelled the plain way there. */
const moved = (name: string | undefined, { semitones }: Interval): Overlay | null => {
  const read = name === undefined ? null : readOverlay(name)
  if (!read?.ok) return null
  return semitones % 12 === 0 ? read.value : slipOverlay(read.value, semitones, [])
}

type LaidOver = (sounding: Sounding, bar: number) => Overlay | null

/** In which turn of so many bars a bar stands, from 0. */
const turnOf = (bar: number, bars: number): number => Math.floor((Math.max(1, bar) - 1) / bars)

/** What lies over each chord in a round. */
const layingOf = (of: ItemOf, variant: RoundVariant, sources: Sources, by: Interval): LaidOver => {
  if (variant.kind === 'free') return () => null
  if (of.kind === 'combine') {
    const sounds = (of.sounds ?? []).map((name) => moved(name, by))
    if (variant.kind === 'only') return () => sounds[variant.sound] ?? null
    return (_, bar) => sounds[turnOf(bar, of.block ?? TURN) % Math.max(1, sounds.length)] ?? null
  }
  const stepOver: LaidOver = ({ spot }, bar) => {
    const beat = beatOf(spot.spot)
    const step = (sources.steps ?? []).find((s) => s.bar === bar && s.beat <= beat + 1e-6 && beat < s.beat + s.beats)
    return spot.spot.chord.kind === 'chord' ? moved(step?.overlay, by) : null
  }
  if (of.kind === 'out-in') {
    const blocks = of.block ?? BLOCK
    const first = of.first === 'out' ? 0 : 1
    const own = moved(of.outside, by)
    const other = sources.otherText === undefined ? null : readTune(sources.otherText, null, { written: by })
    const outside: LaidOver = (sounding, bar) => {
      if (own) return own
      if (of.outside === 'the route in hand') return stepOver(sounding, bar)
      if (other?.ok) return changesAt(other.value, sounding)
      const named = OUTSIDES[of.outside ?? ''] ?? OUTSIDES['a half step up']
      return sounding.place && named ? named(sounding.place) : null
    }
    return (sounding, bar) => (turnOf(bar, blocks) % 2 === first ? outside(sounding, bar) : null)
  }
  const only = moved(of.overlay, by)
  if (only === null) return stepOver
  // It is laid over the chord it was made over; where that goes to is home.
  return of.chartId ? stepOver : (_, bar) => (of.next && bar > 2 ? null : only)
}

/** The chord of another chart at the same moment, as its own notes laid over this one. */
const changesAt = ({ timeline }: Tune, { from }: Sounding): Overlay | null => {
  if (timeline.length === 0) return null
  const at = from % timeline.length
  const chord = timeline.soundings.find((s) => at < s.to)?.place?.chord
  const [first, ...rest] = chord ? tonesOf(chord).map((t) => t.note) : []
  return first ? notesOverlay([first, ...rest]) : null
}

/** What a line itself lays over a chord: its notes there. */
const playedOver = (line: Line | null, { from, to, place }: Sounding): Overlay | null => {
  const there = (line ?? []).filter((n) => n.at >= from && n.at < to)
  const [first, ...rest] = place ? there.map((n) => heardOver(place.chord, pitchClass(n.pitch))) : []
  return first ? notesOverlay([first, ...rest]) : null
}

const cueOver = ({ from, to, place }: Sounding, laid: Overlay | null, { weights }: StageSettings): Cue | null => {
  if (place === null) return null
  const reading = laid && readOver(laid, place, weights)
  const fade = reading?.fade ?? 0
  const name = reading ? reading.overlay.name : homeName(place.home.first)
  return { from, to, where: fade >= OUT ? 'out' : 'in', name, fade }
}

/** Cues that follow each other and say the same are one. */
const joinedCues = (cues: readonly Cue[], isBlocks: boolean): readonly Cue[] => {
  const joined: Cue[] = []
  for (const cue of cues) {
    const last = joined.at(-1)
    const same = last && last.to === cue.from && last.where === cue.where && (isBlocks || last.name === cue.name)
    if (same) joined[joined.length - 1] = { ...last, to: cue.to, fade: Math.max(last.fade, cue.fade) }
    else joined.push(cue)
  }
  return joined
}

/** The whole bars a line lies over; null where it goes past the end of the form, which is then played whole. */
const barsOfLine = ({ chart, timeline }: Tune, line: Line): Span | null => {
  const [first, last] = [line[0]?.at ?? 0, Math.max(...line.map((n) => n.at))]
  if (last >= timeline.length) return null
  const over = barsAt(chart).filter((b) => b.to > first && b.from <= last)
  return { from: over[0]?.from ?? 0, to: over.at(-1)?.to ?? timeline.length }
}

/** One round of an item in a key; null where its chart does not read or holds nothing. */
export const stageOf = (
  of: ItemOf,
  key: string,
  variant: RoundVariant,
  sources: Sources,
  settings: StageSettings,
): Stage | null => {
  const text = sources.text ?? ownText(of)
  const read = readChart(text)
  if (!read.ok) return null
  const home =
    sources.text === undefined ? plainNote(homeKeyOf(of)) : (read.value.key?.tonic ?? plainNote(homeKeyOf(of)))
  const inKeyOf = intervalTo(of.key === undefined ? home : (noteOf(of.key) ?? home), key)
  const { written = UNISON } = settings
  const by = { letters: inKeyOf.letters + written.letters, semitones: inKeyOf.semitones + written.semitones }
  const tune = readTune(text, sources.overrides ?? null, { written: by, school: settings.school })
  if (!tune.ok || tune.value.timeline.length === 0) return null
  const { chart, timeline } = tune.value
  const line = sources.line && sources.line.length > 0 ? inKey(sources.line, by.semitones, RANGE) : null
  const asked = of.bars ? spanOfBars(chart, of.bars.from, of.bars.to) : null
  const span = asked ?? (line && barsOfLine(tune.value, line)) ?? { from: 0, to: timeline.length }
  const laying = layingOf(of, variant, sources, by)
  const inSpan = timeline.soundings.filter((s) => s.from >= span.from && s.from < span.to)
  const over = inSpan.map((sounding) => ({ sounding, laid: laying(sounding, sounding.spot.spot.bar) }))
  return {
    tune: tune.value,
    span,
    laid: over.flatMap(({ sounding: { from, to }, laid }) => (laid ? [{ from, to, overlay: laid }] : [])),
    line,
    cues: joinedCues(
      over.flatMap(({ sounding, laid }) => cueOver(sounding, laid ?? playedOver(line, sounding), settings) ?? []),
      of.kind === 'out-in',
    ),
  }
}

/** Where a line is played in other keys: a voice's middle, with room. */
const RANGE = [52, 86] as const

/** A run of eighths, as smooth as can be. */
const RUN: Omit<Parameters<typeof lineThrough>[1], 'school' | 'weights'> = {
  ...{ figure: { places: [1], step: 1 }, approach: 'none', before: 'group', approachTakes: 'time before' },
  ...{ rhythm: { value: '1/8', start: 1, rest: null }, path: 'wave', wave: 4, order: 'alternate', inversion: 'climb' },
  range: [58, 82],
}

/** What sounds in a round that is heard: its own line, else a run through what is laid. */
export const heardIn = ({ line, laid, tune }: Stage, { school, weights }: StageSettings): Line =>
  line ?? lineThrough(laid, { ...RUN, school, weights }, tune.timeline)
