import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { nameSet } from '../material/naming.ts'
import { slipOverlay } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { contentsOf } from '../symmetry/contents.ts'
import { dominantsBehind } from '../symmetry/dominants.ts'
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
  it('lists its triads: whole tone only augmented ones', () => {
    for (const [scale, roots] of [
      ['C', 'C D E Gb Ab Bb'],
      ['Eb', 'Eb F G A B Db'],
      ['B', 'B Db Eb F G A'],
    ] as const)
      expect(contentsOf(overlay(`${scale} whole tone`)).triads.map((t) => t.name)).toEqual(
        roots.split(' ').map((r) => `${r}+`),
      )
    expect(
      contentsOf(overlay('F half-whole'))
        .triads.map((t) => t.name)
        .filter((n) => /^[A-G][b#]?m?$/.test(n)),
    ).toEqual(['F', 'Fm', 'Ab', 'G#m', 'B', 'Bm', 'D', 'Dm'])
  })
})

describe('a half-whole scale', () => {
  it.each([
    ['F', 'F G# B D'],
    ['Bb', 'Bb C# E G'],
    ['E', 'E G A# C#'],
  ])(
    'on %s holds major, minor and Lydian triads on four roots a minor third apart, and two diminished sevenths',
    (root, roots) => {
      const { triads, sevenths } = contentsOf(overlay(`${root} half-whole`))
      const held = triads.map((t) => `${t.root.pc} ${t.material?.name}`)
      for (const r of roots.split(' '))
        for (const kind of ['', 'm', 'lydian triad']) expect(held).toContain(`${overlay(r).root.pc} ${kind}`)
      const sets = new Set(sevenths.filter((s) => s.material?.name === 'dim7 arpeggio').map((s) => s.set))
      expect(sets.size).toBe(2)
    },
  )
})

describe('a diminished seventh', () => {
  it.each([
    ['Ebdim7', 'D b9, F b7, Ab 5, B 3'],
    ['Cdim7', 'B b9, D b7, F 5, Ab 3'],
    ['G#dim7', 'G b9, Bb b7, Db 5, E 3'],
  ])('%s stands for four dominants', (symbol, expected) => {
    const read = readChord(symbol)
    const behind = read.ok ? dominantsBehind(read.value) : null
    expect(behind?.map((b) => `${b.dominant.root.name} ${b.bassDegree}`).join(', ')).toBe(expected)
  })
  it('is the only chord that does', () => {
    const read = readChord('Cdim')
    expect(read.ok && dominantsBehind(read.value)).toBeNull()
  })
})

/** One name stands for all the roots a symmetric material repeats on, so its root does not move with the notes. */
const SYMMETRIC = /half|whole|augmented|tritone|limited|chromatic|dim7|7b5|\+/

describe('naming', () => {
  const names = (notes: string) => {
    const { equal, within, holds } = nameSet(overlay(notes))
    return { equal: equal.map((o) => o.name), within: within.map((o) => o.name), holds: holds.map((o) => o.name) }
  }
  it('puts the typed root first, then the nearest size, then triad before seventh before mode', () => {
    expect(names('C Eb F G Bb').equal.slice(0, 2)).toEqual(['C minor pentatonic', 'Eb major pentatonic'])
    expect(names('E G# B').equal).toEqual(['E'])
    expect(names('E G# B').within.slice(0, 3)).toEqual(['Emaj7 arpeggio', 'E7 arpeggio', 'E6 arpeggio'])
    expect(names('C E G Bb').holds[0]).toBe('C')
  })
  it('moves with the notes: the same materials at the same distances', () => {
    for (const start of ['C E G Bb', 'C Eb F G Bb', 'C D E F# G# Bb', 'C Eb Gb A', 'C D Eb F'].map(overlay)) {
      const shown = (n: number) => {
        const moved = slipOverlay(start, n, [])
        const { equal, within, holds } = nameSet(moved)
        const at = (o: typeof moved) => `${o.material?.name} ${(o.root.pc - moved.root.pc + 12) % 12}`
        return [equal, within, holds].map((list) => list.map(at).filter((t) => !SYMMETRIC.test(t)))
      }
      for (let n = 1; n < 12; n++) expect(shown(n)).toEqual(shown(0))
    }
  })
})
