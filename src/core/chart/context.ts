import type { Chord, Harmony } from '../chord/chord.ts'
import { overItsBass } from '../chord/slash.ts'
import { type Chart, type Spot, spotsOf } from './chart.ts'

/** A spot with the chord that follows it, into which landing is measured. Slash chords as they are heard there. */
export interface SpotInChart {
  readonly index: number
  readonly spot: Spot
  readonly next: Chord | null
  /** Whether it stands in a progression over one bass. */
  readonly overPedal: boolean
}

const chordOf = (harmony: Harmony | undefined): Chord | null => (harmony?.kind === 'chord' ? harmony : null)

/** The first chord after a spot that differs, where asked; round the corner where the chart repeats; N.C. is looked through. */
const nextChord = (chords: readonly Harmony[], index: number, repeats: boolean, unlike?: Chord): Chord | null => {
  const last = repeats ? index + chords.length : chords.length - 1
  for (let i = index + 1; i <= last; i++) {
    const chord = chordOf(chords[i % chords.length])
    if (chord && chord.symbol !== unlike?.symbol) return chord
  }
  return null
}

/** Different chords over one bass, at least so many, are a progression over a pedal. */
const PEDAL_FROM = 3

/** The places of chords that stand over a pedal: they keep their own rows. */
const overPedals = (chords: readonly Harmony[]): ReadonlySet<number> => {
  const over = new Set<number>()
  const sounding = chords.flatMap((c, i) => (c.kind === 'chord' ? [{ chord: c, i }] : []))
  for (let from = 0; from < sounding.length; ) {
    let to = from + 1
    while (sounding[to]?.chord.bass.pc === sounding[from]?.chord.bass.pc) to++
    const run = sounding.slice(from, to)
    const roots = new Set(run.map((s) => s.chord.root.pc))
    const allSuspend = run.every(
      ({ chord }) => chord.bass === chord.root || overItsBass(chord, null).slash === 'suspended',
    )
    if (roots.size >= PEDAL_FROM && !allSuspend) for (const s of run) over.add(s.i)
    from = to
  }
  return over
}

/** The chords in order, each as its bass makes it heard; those over a pedal as they are. */
const heardChords = (chords: readonly Harmony[], pedal: ReadonlySet<number>, repeats: boolean): readonly Harmony[] => {
  if (!chords.some((c) => c.kind === 'chord' && c.bass !== c.root)) return chords
  return chords.map((c, i) =>
    c.kind === 'no chord' || pedal.has(i) ? c : overItsBass(c, nextChord(chords, i, repeats, c)),
  )
}

/** The spots of a chart in order. Where it repeats, the last is followed by the first; else by nothing. */
export const spotsInChart = (chart: Chart, repeats: boolean): readonly SpotInChart[] => {
  const spots = spotsOf(chart)
  const written = spots.map((s) => s.chord)
  const pedal = overPedals(written)
  const chords = heardChords(written, pedal, repeats)
  return spots.map((spot, index) => {
    const chord = chords[index] as Harmony
    return {
      index,
      spot: chord === spot.chord ? spot : { ...spot, chord },
      next: nextChord(chords, index, repeats),
      overPedal: pedal.has(index),
    }
  })
}
