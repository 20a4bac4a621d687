import type { Chord } from '../chord/chord.ts'
import { type Midi, midi, pitchClass } from '../pitch/units.ts'

/** Where the chords lie: below the line, above the bass. */
const LOW = 50
const HIGH = 70
const WIDEST = 15
const MIDDLE = 59
const MOST_NOTES = 4

/** What a chord needs to be known by: its guide tones, two stated tensions at most, its fifth where there are none. */
const toneSet = ({ root, quality }: Chord): readonly number[] => {
  const fifth = quality.own.find((d) => d.step === 5)
  const colours = quality.stated.length > 0 ? quality.stated.slice(0, 2) : fifth ? [fifth] : []
  const own = quality.guides.length > 0 ? quality.guides : quality.own
  const all = own.length === 1 ? [...quality.own, ...colours] : [...own, ...colours]
  const pcs = all.map((d) => pitchClass(root.pc + d.semitones))
  return [...new Set(pcs)].slice(0, MOST_NOTES)
}

/** Every way to lay pitch classes out within the range, one note each. */
const layouts = (pcs: readonly number[]): readonly (readonly number[])[] =>
  pcs.reduce<readonly (readonly number[])[]>(
    (all, pc) =>
      all.flatMap((so) => {
        const lowest = LOW + pitchClass(pc - LOW)
        const places = [lowest, lowest + 12].filter((p) => p <= HIGH)
        return places.map((p) => [...so, p])
      }),
    [[]],
  )

const nearest = (p: number, others: readonly number[]): number => Math.min(...others.map((o) => Math.abs(o - p)))

/** How far the hands move: each note to the nearest of the chord before, with a pull to the middle. */
const moved = (voicing: readonly number[], before: readonly Midi[]): number => {
  const middle = voicing.reduce((sum, p) => sum + p, 0) / voicing.length
  const way = before.length === 0 ? 0 : voicing.reduce((sum, p) => sum + nearest(p, before), 0)
  return way + Math.abs(middle - MIDDLE) * 0.3
}

/** Within two hands' reach, and no two notes a half step apart: those would blur under a line. */
const isClose = (voicing: readonly number[]): boolean => {
  const sorted = [...voicing].sort((a, b) => a - b)
  const rubs = sorted.some((p, i) => p - (sorted[i - 1] ?? -Infinity) === 1)
  return (sorted.at(-1) ?? 0) - (sorted[0] ?? 0) <= WIDEST && !rubs
}

/** A chord for two hands, lowest first: its guide tones and colour, as near as can be to the chord before. */
export const compVoicing = (chord: Chord, before: readonly Midi[]): readonly Midi[] => {
  const all = layouts(toneSet(chord))
  const close = all.filter(isClose)
  const [best] = [...(close.length > 0 ? close : all)].sort((a, b) => moved(a, before) - moved(b, before))
  return [...(best ?? [])].sort((a, b) => a - b).map(midi)
}
