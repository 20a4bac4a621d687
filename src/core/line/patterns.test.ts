import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { analyseChart } from '../chart/analyse.ts'
import { readChart } from '../chart/read-chart.ts'
import { membersOf, rotate } from '../pitch/pcset.ts'
import { midi, pitchClass, ticks } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { timelineOf } from '../time/timeline.ts'
import { type HeardNote, heardLine } from './heard.ts'
import { lineOf } from './line.ts'
import { type Grouping, groupingsIn, type Sequence, sequencesIn } from './patterns.ts'

const chart = readChart('| Dm7 | G7 | Cmaj7 | Ebm7 Ab7 |')
if (!chart.ok) throw new Error('the chart reads')
const timeline = timelineOf(chart.value, analyseChart(chart.value, true), [], DEFAULT_SCHOOL)

/** Lines of figures that come again, moved or not, with strangers between them. */
const lines = fc
  .array(
    fc.record({
      figure: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 2, maxLength: 6 }),
      by: fc.integer({ min: -3, max: 3 }),
      times: fc.integer({ min: 1, max: 5 }),
      each: fc.constantFrom(240, 320, 480),
      rest: fc.constantFrom(0, 0, 480),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((parts) => {
    let at = 0
    const notes = parts.flatMap(({ figure, by, times, each, rest }) => {
      at += rest
      return Array.from({ length: times }, (_, n) => figure.map((step) => 58 + step + n * by))
        .flat()
        .map((pitch) => {
          at += each
          return { at: ticks(at - each), for: ticks(each), pitch: midi(pitch) }
        })
    })
    return heardLine(lineOf(notes), timeline, DEFAULT_WEIGHTS)
  })

type Ladder = (n: HeardNote | undefined) => number | null
const byPitch: Ladder = (n) => n?.pitch ?? null
const byScaleAt = (from: HeardNote | undefined): Ladder => {
  const place = from?.sounding?.place
  const members = place ? membersOf(rotate(place.home.first.set, place.chord.root.pc)) : []
  return (n) => {
    const at = n ? members.indexOf(pitchClass(n.pitch)) : -1
    return n && at >= 0 ? Math.floor(n.pitch / 12) * members.length + at : null
  }
}

/** What the words say, tried at every note and every length from there to the end. */
const slowSequences = (notes: readonly HeardNote[]): Sequence[] => {
  const found: Sequence[] = []
  for (const tonal of [false, true])
    for (let from = 0; from < notes.length; from++)
      for (let length = 3; length <= 8; length++) {
        const step = tonal ? byScaleAt(notes[from]) : byPitch
        const moved = (i: number): number => (step(notes[i + length]) ?? Number.NaN) - (step(notes[i]) ?? Number.NaN)
        const gap = (i: number): number => (notes[i + length]?.at ?? 0) - (notes[i]?.at ?? 0)
        let i = from
        while (notes[i + length]?.for === notes[i]?.for && moved(i) === moved(from) && gap(i) === gap(from)) i++
        const times = 1 + Math.floor((i - from) / length)
        const to = from + times * length - 1
        const inside = Array.from({ length: to - from }, (_, k) => from + k)
        const steps = new Set(inside.map((k) => (step(notes[k + 1]) ?? 0) - (step(notes[k]) ?? 0)))
        const leaps = inside.map((k) => (notes[k + 1]?.pitch ?? 0) - (notes[k]?.pitch ?? 0))
        const isRun = steps.size < 2 || [1, -1].some((way) => leaps.every((l) => l * way === 1 || l * way === 2))
        if (times > 1 && moved(from) !== 0 && !isRun && (times > 2 || times * length >= 8))
          found.push({ from, to, length, by: moved(from), times, tonal })
      }
  return found
}

const overlap = (a: { from: number; to: number }, b: { from: number; to: number }): boolean =>
  a.from <= b.to && b.from <= a.to

describe('figures that come again', () => {
  it('are what a slow reader finds, the longest first, none over another', () => {
    fc.assert(
      fc.property(lines, (notes) => {
        const all = slowSequences(notes)
        const found = sequencesIn(notes)
        for (const s of found) expect(all).toContainEqual(s)
        for (const [i, s] of found.entries()) for (const o of found.slice(i + 1)) expect(overlap(s, o)).toBe(false)
        // Whatever exact one was left out lies over one that is no shorter.
        for (const s of all.filter((x) => !x.tonal))
          expect(found.some((f) => overlap(f, s) && f.to - f.from >= s.to - s.from)).toBe(true)
      }),
      { numRuns: 300, seed: 11 },
    )
  })
  it('in groups against the beat are even, of one shape, and three at least', () => {
    const contour = (notes: readonly HeardNote[], i: number): number =>
      Math.sign((notes[i + 1]?.pitch ?? 0) - (notes[i]?.pitch ?? 0))
    const isTrue = (notes: readonly HeardNote[], g: Grouping): boolean => {
      const inside = notes.slice(g.from, g.to + 1)
      const [first] = inside
      const isEven = inside.every((n, i) => first && n.for === first.for && n.at === first.at + i * first.for)
      const isAlike = inside.every((_, i) => {
        const place = i % g.length
        return place === g.length - 1 || contour(notes, g.from + i) === contour(notes, g.from + place)
      })
      return isEven && isAlike && inside.length >= 3 * g.length && (g.length * (first?.for ?? 0)) % 960 !== 0
    }
    fc.assert(
      fc.property(lines, (notes) => {
        for (const g of groupingsIn(notes, timeline)) expect(isTrue(notes, g)).toBe(true)
      }),
      { numRuns: 300, seed: 12 },
    )
  })
})
