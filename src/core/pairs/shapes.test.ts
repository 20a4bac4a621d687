import { describe, expect, it } from 'vitest'
import { midi, pitchClass } from '../pitch/units.ts'
import { ANYTHING, rankPairs } from '../reading/rank.ts'
import { readOver } from '../reading/read.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { chordNamed, overlayNamed, placeNamed } from '../testing/words.ts'
import { PAIR_DISTANCES, pairMap } from './map.ts'
import { inOrderOf, inversionPath, motionOf, ORDERS, PATHS, pairPath, voicedFrom } from './shapes.ts'
import { inTwelveKeys } from './twelve.ts'

const [LOW, HIGH] = [midi(55), midi(82)]
const groupsOf = (pair: string) => {
  const { groups } = overlayNamed(pair)
  if (!groups) throw new Error(pair)
  return groups
}
const PAIRS = ['A & B+', 'F#m & E', 'C & Gb', 'Ddim & Eb', 'Bsus4 & Am', 'C lydian triad & Bb+']

describe('orders and inversions', () => {
  it('are all six orders of three notes', () => {
    const { notes } = overlayNamed('Ebm')
    const orders = ORDERS.map((o) =>
      inOrderOf(notes, o)
        .map((n) => n.name)
        .join(' '),
    )
    expect(orders).toEqual(['Eb Gb Bb', 'Eb Bb Gb', 'Gb Eb Bb', 'Gb Bb Eb', 'Bb Eb Gb', 'Bb Gb Eb'])
  })
  it.each([
    [0, 'Eb4 Gb4 Bb4'],
    [1, 'Gb4 Bb4 Eb5'],
    [2, 'Bb3 Eb4 Gb4'],
  ])('inversion %i stands on its own tone', (inversion, names) => {
    const { pitches } = voicedFrom(overlayNamed('Ebm'), inversion, midi(57))
    expect(pitches.map((p) => p.note.name + p.octave).join(' ')).toBe(names)
  })
})

describe('a path of inversions', () => {
  it.each(PAIRS)('goes triad by triad to the nearest one there is: %s', (pair) => {
    const groups = groupsOf(pair)
    for (const kind of PATHS) {
      const path = inversionPath(groups, 9, kind, LOW, HIGH)
      expect(path).toHaveLength(9)
      for (const [i, v] of path.entries()) {
        expect(v.triad).toBe(groups[i % 2])
        const pitches = v.pitches.map((p) => p.pitch)
        expect(pitches.every((p) => p >= LOW && p <= HIGH)).toBe(true)
        expect([...pitches].sort((a, b) => a - b)).toEqual(pitches)
        expect(new Set(pitches.map(pitchClass))).toEqual(new Set(v.triad.notes.map((n) => n.pc)))
      }
      if (kind !== 'stay close') continue
      for (let i = 1; i < path.length; i++) {
        const [before, here] = [path[i - 1], path[i]]
        if (!before || !here) throw new Error('a hole in the path')
        for (let inversion = 0; inversion < 3; inversion++)
          for (let from = Number(LOW); from < HIGH - 12; from++) {
            const other = voicedFrom(here.triad, inversion, midi(from))
            expect(motionOf(before, here)).toBeLessThanOrEqual(motionOf(before, other))
          }
      }
    }
  })
  it('goes on into the next pair from where it stands, by the nearest inversion of either triad', () => {
    const runs = ['Eb & F', 'Ab & Bb', 'Gb & E', 'A & B+'].map((p) => ({ groups: groupsOf(p), count: 5 }))
    for (const kind of PATHS) {
      const path = pairPath(runs, kind, LOW, HIGH)
      expect(path.map((run) => run.length)).toEqual([5, 5, 5, 5])
      for (const [i, run] of path.entries())
        for (const [k, v] of run.entries())
          expect(v.triad).toBe(runs[i]?.groups[(Number(run[0]?.triad === runs[i]?.groups[1]) + k) % 2])
    }
    const close = pairPath(runs, 'stay close', LOW, HIGH)
    for (let i = 1; i < close.length; i++) {
      const [before, here] = [close[i - 1]?.at(-1), close[i]?.[0]]
      if (!before || !here) throw new Error('a hole in the path')
      for (const triad of runs[i]?.groups ?? [])
        for (let inversion = 0; inversion < 3; inversion++)
          for (let from = Number(LOW); from < HIGH - 12; from++)
            expect(motionOf(before, here)).toBeLessThanOrEqual(
              motionOf(before, voicedFrom(triad, inversion, midi(from))),
            )
    }
  })
  it('climbs until the range ends, and then turns', () => {
    const bottoms = inversionPath(groupsOf('A & B+'), 16, 'climb', LOW, HIGH).map((v) => Number(v.pitches[0]?.pitch))
    const top = bottoms.indexOf(Math.max(...bottoms))
    for (let i = 1; i <= top; i++) expect(bottoms[i]).toBeGreaterThan(Number(bottoms[i - 1]))
    expect(bottoms[top + 1]).toBeLessThan(bottoms[top] ?? 0)
  })
  it('is empty where nothing fits', () => {
    expect(inversionPath(groupsOf('A & B+'), 4, 'climb', midi(60), midi(63))).toEqual([])
  })
})

describe('the pair map', () => {
  it('holds in each cell exactly the pairs of those two qualities at that distance, nearest first', () => {
    const place = placeNamed('Db7', 'Gbmaj7')
    for (const distance of PAIR_DISTANCES) {
      const cells = pairMap(place, distance, DEFAULT_WEIGHTS).flat()
      expect(cells).toHaveLength(81)
      for (const { first, second, all } of cells) {
        for (const r of all) {
          const groups = r.overlay().groups
          if (!groups) throw new Error('no pair')
          const apart = pitchClass(groups[1].root.pc - groups[0].root.pc)
          const [low, high] = apart === distance ? groups : [groups[1], groups[0]]
          const names = [low.material?.name, high.material?.name]
          if (distance === 6) expect(names.sort()).toEqual([first.name, second.name].sort())
          else expect(names).toEqual([first.name, second.name])
        }
        const fades = all.map((r) => r.measured.fade)
        expect([...fades].sort((a, b) => a - b)).toEqual(fades)
      }
      const wish = { ...ANYTHING, sort: 'fade' as const, qualities: null, distance, exclusive: null }
      const listed = rankPairs(place, wish, DEFAULT_WEIGHTS).map((r) => r.overlay().name)
      expect(new Set(cells.flatMap((c) => c.all.map((r) => r.overlay().name)))).toEqual(new Set(listed))
    }
  })
})

describe('the same idea in twelve keys', () => {
  it('is read alike in each, on chords of usual spelling', () => {
    const keys = inTwelveKeys(overlayNamed('B & C#+'), chordNamed('Bb7'), chordNamed('Ebmaj7'))
    expect(keys.map((k) => k.chord.symbol).join(' ')).toBe('Bb7 B7 C7 Db7 D7 Eb7 E7 F7 F#7 G7 Ab7 A7')
    const read = keys.map((k) => readOver(k.overlay, placeNamed(k.chord.symbol, k.next?.symbol ?? null)))
    for (const r of read) {
      expect([r.fade, r.landing]).toEqual([read[0]?.fade, read[0]?.landing])
      expect(r.notes.map((n) => n.degree)).toEqual(read[0]?.notes.map((n) => n.degree))
    }
  })
})
