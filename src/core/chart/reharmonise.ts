import { buildChord, type Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { printSymbol } from '../chord/print.ts'
import { type Note, noteAbove, plainNote } from '../pitch/note.ts'
import { ticks } from '../pitch/units.ts'
import type { AnalysedSpot } from './analyse.ts'
import { beatTicks, type Chart, type WrittenBar } from './chart.ts'
import { upTo } from './holds.ts'
import type { TextMend } from './mend.ts'
import { printBar } from './print-chart.ts'

export const REHARMONISATIONS = [
  'tritone substitute',
  'neighbour chord',
  'diminished for a dominant',
  'dominant for a minor chord',
  'chromatic ii-V',
] as const

/** Another chord, or two, in one written bar; nothing is changed until the edits are made. */
export interface Reharmonisation {
  readonly kind: (typeof REHARMONISATIONS)[number]
  readonly why: string
  /** The bar as played, what stands in it and what would. */
  readonly bar: number
  readonly now: readonly string[]
  readonly instead: readonly string[]
  /** Seconds for which the shortest new chord would sound. */
  readonly shortest: number
  readonly edits: readonly TextMend[]
}

type Spots = WrittenBar['spots']

const plainer = (note: Note): Note => (Math.abs(note.alter) > 1 ? plainNote(note.pc) : note)
const chordOn = (root: Note, quality: string): Chord => {
  const read = readChord(plainer(root).name + quality)
  if (!read.ok) throw new Error(`a chord of our own does not read: ${root.name}${quality}`)
  return read.value
}
const movedTo = (chord: Chord, root: Note): Chord => {
  const on = plainer(root)
  return buildChord(on, on, chord.quality, printSymbol(on, on, chord.quality.recipe))
}

/** The same bar with one of its spots changed into others. */
const withSpot = (bar: WrittenBar, at: number, by: (spot: Spots[number]) => Spots): WrittenBar => ({
  ...bar,
  spots: bar.spots.flatMap((s) => (s.at === at ? by(s) : [s])),
})

const halves = (spot: Spots[number], first: Chord, second: Chord, beat: number): Spots => {
  const half = ticks(Math.max(1, Math.floor(spot.length / beat / 2)) * beat)
  return [
    { ...spot, chord: first, length: half },
    { ...spot, chord: second, at: ticks(spot.at + half), length: ticks(spot.length - half) },
  ]
}

/** Text for a changed bar; a `%` after it that repeated the old one is written out. */
const editsFor = (chart: Chart, text: string, index: number, changed: WrittenBar): readonly TextMend[] => {
  const old = chart.written[index] as WrittenBar
  const edit = (bar: WrittenBar, becomes: WrittenBar): TextMend => ({
    at: bar.text.at,
    end: bar.text.end,
    becomes: printBar(becomes),
  })
  const next = chart.written[index + 1]
  const repeats = next && text.slice(next.text.at, next.text.end) === '%'
  return [edit(old, changed), ...(repeats ? [edit(next, next)] : [])]
}

interface Idea {
  readonly kind: Reharmonisation['kind']
  readonly why: string
  readonly spot: AnalysedSpot
  readonly becomes: (spot: Spots[number]) => Spots
}

const symbolsOf = (bar: WrittenBar): readonly string[] => bar.spots.map((s) => s.chord.symbol)

const asReharmonisation = (chart: Chart, text: string, { kind, why, spot, becomes }: Idea): Reharmonisation | null => {
  const played = chart.bars.find((b) => b.number === spot.spot.bar)
  const old = played && chart.written[played.written]
  if (!played || !old) return null
  const changed = withSpot(old, spot.spot.at, becomes)
  const shortest = Math.min(...changed.spots.map((s) => s.length))
  return {
    kind,
    why,
    bar: played.number,
    now: symbolsOf(old),
    instead: symbolsOf(changed),
    shortest: (shortest / beatTicks(chart.metre)) * (60 / chart.tempo),
    edits: editsFor(chart, text, played.written, changed),
  }
}

const single =
  (chord: Chord) =>
  (spot: Spots[number]): Spots => [{ ...spot, chord }]

const ideasFor = (spots: readonly AnalysedSpot[], spot: AnalysedSpot, beat: number): readonly Idea[] => {
  const { chord } = spot.spot
  const { next, job } = spot
  if (chord.kind === 'no chord' || !next) return []
  const ideas: Idea[] = []
  const up = upTo(chord, next)
  const isV = chord.family === 'dominant' && job?.kind === 'V' && up === 5
  if (isV) {
    const partner = chordOn(noteAbove(next.root, 1, 1), '7')
    const why = `${partner.symbol} has the same guide tones and falls a semitone to ${next.symbol}.`
    ideas.push({ kind: 'tritone substitute', why, spot, becomes: single(partner) })
  }
  if (isV && spot.degree !== '5') {
    const diminished = chordOn(noteAbove(next.root, -1, -1), 'dim7')
    const why = `${diminished.symbol} is ${chord.symbol} with its b9 in place of the root, and rises to ${next.symbol}.`
    ideas.push({ kind: 'diminished for a dominant', why, spot, becomes: single(diminished) })
  }
  if (chord.family === 'minor' && up === 5) {
    const dominant = chordOn(chord.root, '7')
    const why = `With its third raised ${chord.symbol} becomes the V of what follows.`
    ideas.push({ kind: 'dominant for a minor chord', why, spot, becomes: single(dominant) })
  }
  if (spot.spot.length >= 2 * beat && up !== 1 && up !== 11 && up !== 0) {
    const neighbour = movedTo(next, noteAbove(next.root, 1, 1))
    const why = `${neighbour.symbol}, a half step above ${next.symbol} and of its kind, leans into it.`
    ideas.push({ kind: 'neighbour chord', why, spot, becomes: (s) => halves(s, chord, neighbour, beat) })
  }
  const after = spots[spot.index + 1]
  const two = spots[spot.index + 2]
  const leadsToPair = after?.job?.kind === 'ii' && two?.job?.kind === 'V' && after.spot.chord.kind === 'chord'
  if (
    leadsToPair &&
    two.spot.chord.kind === 'chord' &&
    after.spot.chord.kind === 'chord' &&
    spot.spot.length >= 2 * beat
  ) {
    const [ii, v] = [after.spot.chord, two.spot.chord].map((c) => movedTo(c, noteAbove(c.root, 1, 1)))
    if (ii && v) {
      const why = `${ii.symbol} ${v.symbol} is the ii–V that follows, a half step higher, and slips down into it.`
      ideas.push({ kind: 'chromatic ii-V', why, spot, becomes: (s) => halves(s, ii, v, beat) })
    }
  }
  return ideas
}

/**
 * What could stand at a spot instead, each as edits of the chart's own text. A bar that is repeated changes in every
 * pass. Source: theory page, section 7.
 */
export const reharmonisationsAt = (
  chart: Chart,
  text: string,
  spots: readonly AnalysedSpot[],
  spot: AnalysedSpot,
): readonly Reharmonisation[] =>
  ideasFor(spots, spot, beatTicks(spot.spot.metre)).flatMap((idea) => asReharmonisation(chart, text, idea) ?? [])
