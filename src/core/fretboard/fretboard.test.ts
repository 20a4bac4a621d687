import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { noteOn } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { atOrAbove, pitchNamed, pitchOn, upwards } from '../pitch/register.ts'
import { midi } from '../pitch/units.ts'
import { overlayNamed } from '../testing/words.ts'
import { fretsIn, fretsOf, POSITIONS, WHOLE_NECK } from './frets.ts'
import { readTuning, TUNINGS } from './tuning.ts'

const tuning = (text: string) => {
  const read = readTuning(text)
  if (!read.ok) throw new Error(text)
  return read.value
}

describe('tunings', () => {
  it.each([
    ['guitar', [40, 45, 50, 55, 59, 64]],
    ['guitar-7', [35, 40, 45, 50, 55, 59, 64]],
    ['bass-4', [28, 33, 38, 43]],
    ['bass-5', [23, 28, 33, 38, 43]],
    ['bass-6', [23, 28, 33, 38, 43, 48]],
  ] as const)('%s', (id, pitches) => {
    expect(tuning(TUNINGS.find((t) => t.id === id)?.strings ?? '')).toEqual(pitches)
  })
  it('reads the player’s own, in any signs', () => {
    expect(tuning(' D2  A2 D3 F♯3 A3 D4 ')).toEqual([38, 45, 50, 54, 57, 62])
    expect(tuning('Bb-1 C0')).toEqual([10, 12])
  })
  it.each([
    ['', 0, ''],
    ['E2 A2 H3', 6, 'H3'],
    ['E2 A', 3, 'A'],
    ['E2 A22', 3, 'A22'],
    ['E1 E1 E1 E1 E1 E1 E1 E1 E1 E1 E1', 30, 'E1'],
  ])('says where “%s” goes wrong', (text, at, found) => {
    expect(readTuning(text)).toMatchObject({ ok: false, error: { at, found } })
  })
})

describe('frets', () => {
  it('each sound a half step above the one before, from the open string', () => {
    for (const { strings } of TUNINGS) {
      const open = tuning(strings)
      for (const position of [WHOLE_NECK, ...POSITIONS])
        for (const f of fretsIn(open, position)) {
          expect(f.pitch).toBe((open[f.string] ?? 0) + f.fret)
          expect(f.pc).toBe(f.pitch % 12)
          expect(f.fret).toBeGreaterThanOrEqual(position.from)
          expect(f.fret).toBeLessThanOrEqual(position.to)
        }
    }
  })
  it('hold every note of an overlay on the whole neck, and nothing else', () => {
    for (const name of ['A & B+', 'F half-whole', 'E chromatic', 'C#m']) {
      const { set, notes } = overlayNamed(name)
      const found = fretsOf(tuning(TUNINGS[2].strings), set, WHOLE_NECK)
      expect(found.every((f) => has(set, f.pc))).toBe(true)
      expect(new Set(found.map((f) => f.pc)).size).toBe(notes.length)
    }
  })
})

describe('register', () => {
  it.each([
    ['B#', 6, 1, 3, 60],
    ['Cb', 0, -1, 4, 59],
    ['C', 0, 0, 4, 60],
    ['F##', 3, 2, 4, 67],
    ['Abb', 5, -2, 4, 67],
  ] as const)('%s counts its octave by its letter', (_, letter, alter, octave, pitch) => {
    const note = noteOn(letter, alter)
    if (!note) throw new Error('no note')
    expect(pitchOn(note, octave).pitch).toBe(pitch)
  })
  it('names a pitch in the octave of its letter, and sounds what it was', () => {
    fc.assert(
      fc.property(
        fc.nat(6),
        fc.integer({ min: -2, max: 2 }),
        fc.integer({ min: 12, max: 120 }),
        (letter, alter, pitch) => {
          const note = noteOn(letter, alter)
          if (!note) throw new Error('no note')
          const named = pitchNamed(note, midi(pitch))
          expect(named.pitch).toBe(pitch)
          expect(pitchOn(named.note, named.octave).pitch).toBe(pitch)
          if (note.pc === pitch % 12) expect(named.note).toBe(note)
        },
      ),
    )
  })
  it('rises note by note, each within an octave of the last, and sounds what it is called', () => {
    const notes = fc.array(fc.tuple(fc.nat(6), fc.integer({ min: -2, max: 2 })), { minLength: 1, maxLength: 12 })
    fc.assert(
      fc.property(notes, fc.integer({ min: 30, max: 80 }), (named, low) => {
        const spelled = named.flatMap(([letter, alter]) => noteOn(letter, alter) ?? [])
        let least = low
        for (const p of upwards(spelled, midi(low))) {
          expect(p.pitch % 12).toBe(p.note.pc)
          expect(p.pitch).toBeGreaterThanOrEqual(least)
          expect(p.pitch).toBeLessThan(least + 12)
          expect(pitchOn(p.note, p.octave).pitch).toBe(p.pitch)
          least = p.pitch + 1
        }
        const [first] = spelled
        if (first) expect(atOrAbove(first, low).pitch).toBe(upwards([first], midi(low))[0]?.pitch)
      }),
    )
  })
})
