import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { heardLine } from '../line/heard.ts'
import { endOf, lineOf } from '../line/line.ts'
import { midi, ticks } from '../pitch/units.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { lineOfWords } from '../testing/lines.ts'
import { timelineFor } from '../testing/making.ts'
import { inKey, KEY_ORDER_NAMES, keysInOrder } from './keys.ts'
import type { Lick } from './lick.ts'
import { placesIn } from './places.ts'
import { servingsOf } from './serving.ts'

const lickOf = (words: string): Lick => ({ line: lineOfWords(words), beat: 960, isStrong: (at) => at % 1920 === 0 })
const over = (words: string, symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return servingsOf(lickOf(words), read.value, DEFAULT_SCHOOL, DEFAULT_WEIGHTS)
}

describe('a lick of a dominant half and a minor-sixth half', () => {
  it.each([
    ['E4 G#4 B4 D5 C5 A4 F#4 E4', 'Am6', 'E7', 'D7'],
    ['C4 E4 G4 Bb4 Ab4 F4 D4 C4', 'Fm6', 'C7', 'Bb7'],
    ['B3 D#4 F#4 A4 G4 E4 C#4 B3', 'Em6', 'B7', 'A7'],
  ])('%s over %s', (words, own, dominant, above) => {
    const { parts, serves } = over(words, own)
    expect(parts.map((p) => [p.from, p.to, p.implies])).toEqual([
      [0, 3, dominant],
      [4, 7, own],
    ])
    const degreeOn = (chord: string) => serves.find((s) => s.chord === chord)?.startDegree
    expect([degreeOn(own), degreeOn(above), degreeOn(`${dominant} ${own}`)]).toEqual(['5', '9', '1'])
    expect(serves[0]?.chord).toBe(`${dominant} ${own}`)
    const half = words.split(' ').slice(4).join(' ')
    expect(over(half, own).serves.filter((s) => s.family === 'dominant' || s.family === 'suspended')).toEqual([])
    expect(over(half, own).serves.map((s) => s.chord)).toContain(own)
  })
})

const anyLick = fc.array(fc.record({ pitch: fc.integer({ min: 55, max: 75 }), long: fc.constantFrom(480, 480, 960) }), {
  minLength: 3,
  maxLength: 10,
})

it('serves what a plain reading of every chord says, and nothing else', () => {
  fc.assert(
    fc.property(anyLick, (drawn) => {
      let at = 0
      const line = lineOf(
        drawn.map(({ pitch, long }) => {
          const note = { at: ticks(at), for: ticks(long), pitch: midi(pitch) }
          at += long
          return note
        }),
      )
      const { serves } = servingsOf({ ...lickOf('C4'), line }, readCmaj7, DEFAULT_SCHOOL, DEFAULT_WEIGHTS)
      const singles = serves.filter((s) => !s.chord.includes(' '))
      const leads = line.some((n) => n.pitch % 12 === 11)
      for (const root of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'])
        for (const type of ['maj7', 'm7', '7', 'm7b5', '7alt', 'm6']) {
          const read = readChord(root + type)
          if (!read.ok) continue
          const bars = Math.ceil(endOf(line.at(-1) as (typeof line)[number]) / 3840)
          const timeline = timelineFor(`| ${Array.from({ length: bars }, () => root + type).join(' | ')} |`)
          const notes = heardLine(line, timeline, DEFAULT_WEIGHTS)
          const out = notes.map((n) => n.role === 'outside' && !n.blue)
          const last = out.lastIndexOf(true)
          const next = notes[last + 1]
          const lands = last < 0 || (next !== undefined && Math.abs(next.pitch - (notes[last]?.pitch ?? 0)) <= 2)
          const borne = notes.every((n, i) => {
            const rests = n.for >= 960 || i === notes.length - 1
            return out[i] ? !n.strong && !rests : n.role !== 'suspension' || n.blue || !rests
          })
          const isDominant = read.value.family === 'dominant'
          const found = singles.find((s) => {
            const symbol = readChord(s.chord)
            return symbol.ok && symbol.value.root.pc === read.value.root.pc && symbol.value.symbol.endsWith(type)
          })
          // The chart's own analysis may give a lone chord another job: only where it gives none is it compared.
          if (timeline.soundings[0]?.place?.job) continue
          expect(Boolean(found), `${root}${type}`).toBe(lands && borne && (!isDominant || leads))
        }
    }),
    { numRuns: 60 },
  )
})
const readCmaj7 = (() => {
  const read = readChord('Cmaj7')
  if (!read.ok) throw new Error('Cmaj7')
  return read.value
})()

describe('places in a chart', () => {
  it('stand where the lick fits, cut where the chord leaves too soon, ended on a landing', () => {
    const timeline = timelineFor('| Fm6 | Bb7 Eb7 | Abmaj7 | % |')
    const places = placesIn(lickOf('E4 G#4 B4 D5 C5 A4 F#4 E4'), timeline, true, [40, 88], DEFAULT_WEIGHTS)
    expect(places[0]).toMatchObject({ bar: 1, beat: 1, chord: 'Fm6', startDegree: '5', cut: false })
    const short = places.find((p) => p.chord === 'Bb7')
    expect(short).toMatchObject({ bar: 2, beat: 1, cut: true })
    expect(short?.line.at(-1)).toMatchObject({ at: 3840 + 1920 })
    for (const { line, cut, bar } of places)
      if (cut) expect(heardLine(line, timeline, DEFAULT_WEIGHTS).at(-1)?.role, String(bar)).toBe('chord')
  })
  it('are none over a dominant for a lick without one', () => {
    const timeline = timelineFor('| G7 | Cm6 | F7 | D7 |')
    const places = placesIn(lickOf('C5 A4 F#4 E4'), timeline, false, [40, 88], DEFAULT_WEIGHTS)
    expect(places.map((p) => p.chord)).toEqual(['Cm6'])
  })
})

describe('twelve keys', () => {
  it.each(KEY_ORDER_NAMES)('by %s come once each, the first as it is', (order) => {
    let seed = 7
    const keys = keysInOrder(order, () => {
      seed = (seed * 48271) % 2147483647
      return seed / 2147483647
    })
    expect(keys[0]).toBe(0)
    expect([...keys].sort((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, i) => i))
  })
  it('lie within the range where the line fits into it', () => {
    const line = lineOfWords('E4 G#4 B4 D5')
    for (let by = 0; by < 12; by++) {
      const there = inKey(line, by, [58, 82]).map((n) => n.pitch)
      expect(Math.min(...there)).toBeGreaterThanOrEqual(58)
      expect(Math.max(...there)).toBeLessThanOrEqual(82)
      expect(there.every((p, i) => Math.abs(p - (line[i]?.pitch ?? 0) - by) % 12 === 0)).toBe(true)
    }
  })
})
