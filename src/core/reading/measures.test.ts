import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { contentsOf } from '../symmetry/contents.ts'
import { keyDistance } from './key-distance.ts'
import { roughnessOver, toneRoughness } from './roughness.ts'

const overlay = (text: string) => {
  const read = readOverlay(text)
  if (!read.ok) throw new Error(text)
  return read.value
}
const distance = (home: string, over: string) => keyDistance(overlay(home).set, overlay(over).set)

describe('key distance', () => {
  it.each([
    ['C ionian', 'G major pentatonic', 0, false],
    ['C ionian', 'D ionian', 2, false],
    ['C ionian', 'C# dorian', 5, false],
    ['Eb mixolydian', 'B dorian', 5, false],
    ['C mixolydian', 'F# ionian', 5, false],
    ['C ionian', 'C melodic minor', 0, true],
  ] as const)('%s to %s', (home, over, steps, nearest) => {
    expect(distance(home, over)).toEqual({ steps, nearest })
  })
  it('has none where a set repeats within the octave', () => {
    expect(distance('C ionian', 'C whole tone')).toBeNull()
    expect(distance('C half-whole', 'C ionian')).toBeNull()
  })
})

describe('roughness', () => {
  it('has its known dips near the just intervals of harmonic tones', () => {
    const cents = Array.from({ length: 1251 }, (_, i) => i)
    const curve = cents.map((c) => toneRoughness(261.63, 261.63 * 2 ** (c / 1200)))
    const dips = cents.filter(
      (c) => c > 0 && (curve[c] ?? 0) < (curve[c - 1] ?? 0) && (curve[c] ?? 0) <= (curve[c + 1] ?? 0),
    )
    for (const ratio of [6 / 5, 5 / 4, 4 / 3, 3 / 2, 5 / 3, 2]) {
      const just = 1200 * Math.log2(ratio)
      expect(Math.min(...dips.map((d) => Math.abs(d - just))), String(ratio)).toBeLessThanOrEqual(10)
    }
  })
  it('fills 0..100 over the octave, and a chord tone is smoother than the note a semitone above it', () => {
    const chord = readChord('C7')
    if (!chord.ok) throw new Error('C7')
    const over = roughnessOver(chord.value)
    expect([Math.min(...over), Math.max(...over)]).toEqual([0, 100])
    expect(over[7]).toBeLessThan(over[8] ?? 0)
  })
})

describe('what a material holds', () => {
  it('counts the transpositions of symmetric ones', () => {
    expect(contentsOf(overlay('F half-whole'))).toMatchObject({ periodSemitones: 3, distinct: 3 })
    expect(contentsOf(overlay('F whole tone'))).toMatchObject({ periodSemitones: 2, distinct: 2 })
    expect(contentsOf(overlay('F augmented scale')).periodSemitones).toBe(4)
  })
  it('lists its triads: whole tone only augmented ones and major b5', () => {
    expect(contentsOf(overlay('C whole tone')).triads.map((t) => t.name)).toEqual(
      ['C', 'D', 'E', 'F#', 'G#', 'Bb'].flatMap((r) => [`${r}+`, `${r} major b5 triad`]),
    )
    expect(
      contentsOf(overlay('F half-whole'))
        .triads.map((t) => t.name)
        .filter((n) => /^[A-G][b#]?m?$/.test(n)),
    ).toEqual(['F', 'Fm', 'G#', 'G#m', 'B', 'Bm', 'D', 'Dm'])
  })
})
