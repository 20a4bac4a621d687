import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { midi, ticks } from '../pitch/units.ts'
import { DEFAULT_SCHOOL, type School } from '../reading/school.ts'
import { auditOfWords } from '../testing/lines.ts'
import type { Audit } from './audit.ts'
import { lineOf } from './line.ts'
import { verdictOf } from './verdict.ts'

const cells = (a: Audit) => a.cells.filter((c) => c.overlay).map((c) => [c.from + 1, c.to + 1, c.overlay?.name])
const kinds = (a: Audit) => a.melodic.map((m) => m?.kind ?? '')
const landing = (a: Audit, i = 0) => {
  const { landing: l } = a.stretches[i] ?? {}
  const on = l && a.notes[l.on]
  return l && on ? [l.how, on.degree, on.bar, on.beat, l.afterBeats] : null
}
const verdict = (a: Audit, school: School = DEFAULT_SCHOOL) => verdictOf(a, school).map((s) => s.text)
const faults = (a: Audit, school: School = DEFAULT_SCHOOL) => verdictOf(a, school).filter((s) => s.tone === 'fault')
const heard = (a: Audit) => a.readings.map((r) => [r.from + 1, r.to + 1, r.heard])

/** Lines whose answers were written down first, as a musician hears them. */
describe('lines taken apart', () => {
  it('an enclosure from above and below: the 9 and the 7 lead to the root', () => {
    const a = auditOfWords('| Gmaj7 | % |', '. . A4 F#4 G4:2 B4 D5 A4:4')
    expect(kinds(a).slice(0, 3)).toEqual(['enclosure', 'enclosure', 'target'])
    expect(verdict(a)).toContain('Notes 1-2 enclose G (the 1 of Gmaj7).')
    expect(a.stretches).toEqual([])
  })
  it('an enclosure of four notes: two by half steps from above, one from below', () => {
    const a = auditOfWords('| Cm7 | % |', '. F4 E4 D4 Eb4:2 G4 Bb4 C5:4')
    expect(kinds(a).slice(0, 4)).toEqual(['enclosure', 'enclosure', 'enclosure', 'target'])
    expect(a.figures).toMatchObject([{ from: 0, to: 3 }])
    expect(faults(a)).toEqual([])
  })
  it('a symmetric run that resolves: half-whole on the dominant, down a half step to the 3', () => {
    const a = auditOfWords('| G7 | Cmaj7 |', 'G4 Ab4 Bb4 B4 Db5 D5 E5 F5 E5:4')
    expect(cells(a)[0]).toEqual([1, 8, 'G half-whole'])
    expect(a.jobs.slice(0, 8)).toEqual(Array(8).fill('symmetric run G half-whole'))
    expect(a.stretches).toEqual([])
    expect(verdict(a)).toContain('It ends on E (the 3 of Cmaj7), held.')
    expect(faults(a)).toEqual([])
  })
  it('a slip out and back: four notes a half step up, home by a half step', () => {
    const a = auditOfWords('| Dm7 | % |', 'D4 E4 F4 G4 Eb4 F4 Gb4 Ab4 A4:2 F4 D4:4')
    expect(heard(a).some(([from, to, what]) => from === 5 && to === 8 && what === 'side-slip +1')).toBe(true)
    expect(landing(a)).toEqual(['half step up', '5', 2, 1, 0])
  })
  it('a neighbour chord inserted: the triad a half step above the next chord, whose top falls to its 5', () => {
    const a = auditOfWords('| G7 | Cmaj7 |', 'G4 B4 D5 F5 Ab4 Db5 F5 Ab5 G5:4')
    const db = a.readings.find((r) => r.heard === 'Db')
    expect(db?.why).toBe('Its notes are Db: a half step above Cmaj7, inserted before it.')
    expect(a.figures).toEqual([])
    expect(a.stretches).toEqual([])
  })
  it('a note from outside a symmetric set only leads into it', () => {
    const a = auditOfWords('| G7 | % |', 'G4 A4 B4 Db5 Eb5 D5 Db5 B4 A4:2 F4:4')
    expect(cells(a)[0]).toEqual([1, 10, 'G whole tone'])
    expect(a.jobs[3]).toBe('symmetric run G whole tone')
    expect(a.jobs[5]).not.toContain('symmetric')
  })
  it('a late resolution: the 7 of the ii hangs over the dominant and falls to its 3', () => {
    const a = auditOfWords('| Dm7 | G7 |', 'D4 F4 A4 C5 A4 F4 E4 C5 C5:2 B4:2 G4:4')
    expect(kinds(a)[8]).toBe('delayed resolution')
    expect(verdict(a)).toContain('Note 9, C, hangs over from the chord before and resolves late to B (the 3 of G7).')
    expect(faults(a)).toEqual([])
  })
  it('an early one: the 3 of the dominant before the bar line', () => {
    const a = auditOfWords('| Dm7 | G7 |', 'D4 F4 A4 C5 A4 F4 D4 B4 D5 F5 G5:2')
    expect(kinds(a)[7]).toBe('anticipation')
    expect(verdict(a)).toContain('Note 8, B, comes early: it belongs to G7.')
  })
  it('a stretch that never lands is said to be unresolved', () => {
    const a = auditOfWords('| Cmaj7 | % |', 'C4 E4 Ab4 Bb4 Db5 Eb5 Db5 Bb4 Ab4:4')
    expect(a.stretches).toHaveLength(1)
    expect(a.stretches[0]).toMatchObject({ from: 2, to: 8, landing: null })
    expect(
      faults(a)
        .map((s) => s.text)
        .some((t) => /^Notes 3-9 are away from home .*: unresolved\.$/.test(t)),
    ).toBe(true)
  })
  it('two triads by turns are heard as a pair', () => {
    const a = auditOfWords('| C7 | % | C7 |', 'C4 E4 G4 F#4 A4 D5 E5 C5 G4 A4 F#4 D4 C4:4')
    expect(cells(a)[0]).toEqual([1, 12, 'C & D'])
    expect(a.jobs[3]).toBe('part of triad pair C/D')
  })
  it('groups of five in eighths go against the beat and meet it after five beats', () => {
    const a = auditOfWords('| Dm7 | % | % |', 'D4 E4 F4 G4 A4 E4 F4 G4 A4 B4 F4 G4 A4 B4 C5 G4 A4 B4 C5 D5 A4:2')
    expect(a.groupings).toMatchObject([{ from: 0, length: 5, meetsAfterBeats: 5 }])
    expect(a.sequences).toMatchObject([{ from: 0, length: 5, by: 1, times: 4, tonal: true }])
  })
  it('a figure moved by major thirds is a sequence', () => {
    const a = auditOfWords('| Cmaj7 | % |', 'C4 E4 D4 G4 E4 G#4 F#4 B4 G#4 C5 A#4 D#5 E5:4')
    expect(a.sequences).toMatchObject([{ from: 0, to: 11, length: 4, by: 4, times: 3 }])
    expect(verdict(a)).toContain('Notes 1-12 repeat a figure of 4 notes 3 times, each 4 semitones up.')
  })
  it('an ending that cuts is a fault where lines land smoothly, and meant where they are angular', () => {
    const a = auditOfWords('| G7 | Cmaj7 |', 'G4 Bb4 Db5 Eb5 F#5:2 . . C4:4')
    expect(landing(a)?.slice(0, 4)).toEqual(['cut', '1', 2, 1])
    expect(faults(a).some((s) => s.text.includes('cut off by a leap to C'))).toBe(true)
    const angular = { ...DEFAULT_SCHOOL, wayHome: 'angular' } as const
    expect(verdict(a, angular).some((t) => t.includes('which an angular player wants'))).toBe(true)
    expect(faults(a, angular).some((s) => s.text.includes('leap'))).toBe(false)
  })
  it('a line that ends on a suspension is told so, unless suspensions are free', () => {
    const a = auditOfWords('| Cmaj7 |', 'C4 D4 E4 G4 F4:4')
    expect(faults(a).map((s) => [s.text, s.notes])).toEqual([
      ['The line ends on F (the 11 of Cmaj7), a suspension: it asks to go on down.', [4]],
    ])
    expect(faults(a, { ...DEFAULT_SCHOOL, suspensions: 'free' })).toEqual([])
  })
  it('the major third over a minor chord is found, and chromatic notes on strong beats are judged by school', () => {
    const a = auditOfWords('| Dm7 | % |', 'F#4:2 A4 C5 D5:4')
    expect(faults(a).map((s) => s.text)).toContain('Note 1, F# (the 3 of Dm7), is the major third over a minor chord.')
    const b = auditOfWords('| Cmaj7 | % |', 'C#5 D#5 F#5 G#5 G5:4 E5:4')
    expect(verdict(b).some((t) => t.includes('Note 1, ') && t.includes('strong beat'))).toBe(true)
    const welcome = { ...DEFAULT_SCHOOL, strongBeats: 'chromatic welcome' } as const
    expect(verdict(b, welcome).some((t) => t.includes('strong beat'))).toBe(false)
  })
})

describe('any line over any of these charts', () => {
  const notes = fc.array(
    fc.record({
      gap: fc.constantFrom(0, 240, 480),
      for: fc.constantFrom(160, 240, 320, 480, 960),
      pitch: fc.integer({ min: 40, max: 90 }),
    }),
    { maxLength: 40 },
  )
  const lineFrom = (all: readonly { gap: number; for: number; pitch: number }[]) => {
    let at = 0
    return lineOf(
      all.map((n) => {
        const from = at + n.gap
        at = from + n.for
        return { at: ticks(from), for: ticks(n.for), pitch: midi(n.pitch) }
      }),
    )
  }
  const charts = fc.constantFrom(
    '| Dm7 G7 | Cmaj7 |',
    'metre = 7/4\n| Bbm9:4 F7alt:3 |',
    '| N.C. | E7#9 | N.C. |',
    'metre = 3/4\n| Am7b5 | D7b9 | Gm6 |',
  )
  it('is explained from its first note to its last, every finding within it, the same in every octave', () => {
    fc.assert(
      fc.property(charts, notes, (chart, all) => {
        const line = lineFrom(all)
        const a = auditOfWords(chart, line)
        expect(a.cells.reduce((next, c) => (c.from === next ? c.to + 1 : Number.NaN), 0)).toBe(line.length)
        expect(a.jobs).toHaveLength(line.length)
        for (const s of verdictOf(a, DEFAULT_SCHOOL)) for (const n of s.notes) expect(a.notes[n]).toBeDefined()
        for (const s of a.stretches) expect(s.landing === null || s.landing.on > s.to).toBe(true)
        const up = auditOfWords(
          chart,
          line.map((n) => ({ ...n, pitch: midi(n.pitch + 12) })),
        )
        expect(up.cells.map((c) => [c.from, c.to, c.how])).toEqual(a.cells.map((c) => [c.from, c.to, c.how]))
        expect(up.jobs).toEqual(a.jobs)
      }),
      { numRuns: 120, seed: 9 },
    )
  })
})

describe('a stretch away from home', () => {
  it('goes on through tones that both keys share, and is named as the slip it is', () => {
    const a = auditOfWords(
      '| Dm7 | % | % |',
      'D4 F4 E4 G4 F4 A4 G4 E4 Eb4 F4 Gb4 Ab4 Bb4 Ab4 Gb4 F4 Eb4 Gb4 Bb4 Db5 Bb4 Ab4 Gb4 Eb4',
    )
    expect(a.stretches).toMatchObject([{ from: 8, to: 23, landing: null }])
    expect(cells(a).at(-1)).toEqual([9, 24, 'Eb minor pentatonic'])
    expect(heard(a)).toContainEqual([9, 24, 'side-slip +1'])
  })
  it('is none where a dominant is played in its own altered sound', () => {
    const a = auditOfWords('| Dm7 | G7alt | Cmaj7 |', 'A4 F4 D4 C4 E4 G4 F4 D4 Db4 Eb4 F4 Ab4 Bb4 F4 Ab4 Eb4 E4:4')
    expect(a.stretches).toEqual([])
    expect(faults(a)).toEqual([])
  })
})
