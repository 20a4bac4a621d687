import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { MODES } from '../material/catalogue.ts'
import { materialNamed } from '../material/material.ts'
import { placeOn } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { placeOf } from '../reading/read.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import { derivePairs, ownSymbol } from './derive.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const derive = (scale: string, omit: string | null, over: string, to: string | null = null) => {
  const read = readOverlay(scale)
  if (!read.ok) throw new Error(scale)
  const found = derivePairs(read.value, omit, placeOf(chord(over), to === null ? null : chord(to)), DEFAULT_WEIGHTS)
  if (!found) throw new Error(`${scale} without ${omit}`)
  return found
}
const groups = (d: ReturnType<typeof derive>): string =>
  d.groups.map((g) => `${g.notes.map((n) => n.name).join(' ')} = ${g.triad?.name} (${g.inversion})`).join(', ')

describe('two triads out of a scale', () => {
  it.each([
    ['Ab ionian', '4', 'Abmaj7', 'Ab C F = Fm (1), Bb Eb G = Eb (2)'],
    ['D ionian', '4', 'Dmaj7', 'D F# B = Bm (1), E A C# = A (2)'],
    ['F# ionian', '4', 'F#maj7', 'F# A# D# = D#m (1), G# C# E# = C# (2)'],
    ['G mixolydian', '4', 'G7', 'G B E = Em (1), A D F = Dm (2)'],
    ['Bb mixolydian', '4', 'Bb7', 'Bb D G = Gm (1), C F Ab = Fm (2)'],
    ['E mixolydian', '4', 'E7', 'E G# C# = C#m (1), F# B D = Bm (2)'],
    ['D dorian', '6', 'Dm7', 'D F A = Dm (0), E G C = C (1)'],
    ['F# dorian', '6', 'F#m7', 'F# A C# = F#m (0), G# B E = E (1)'],
    ['Bb dorian', '6', 'Bbm7', 'Bb Db F = Bbm (0), C Eb Ab = Ab (1)'],
  ])('%s without its %s', (scale, omit, over, expected) => {
    expect(groups(derive(scale, omit, over))).toBe(expected)
  })

  it('leaves out, unasked, the one suspension; on Dorian before its V the 6; else what lies lowest', () => {
    expect(derive('Ab ionian', null, 'Abmaj7').dropped?.omission.degree).toBe('4')
    expect(derive('G mixolydian', null, 'G7').dropped?.omission.degree).toBe('4')
    expect(derive('D dorian', null, 'Dm7', 'G7').dropped?.omission.degree).toBe('6')
    const phrygian = derive('E phrygian', null, 'Em7b9')
    expect(phrygian.dropped?.omission.fade).toBe(Math.min(...phrygian.all.map((o) => o.fade)))
  })

  it('gives, for every mode, the triads on the two degrees above the omitted one', () => {
    const modes = MODES.map(([name]) => materialNamed(name))
    expect(modes).toHaveLength(28)
    for (const m of modes)
      for (const pc of [0, 3, 8]) {
        const scale = placeOn(plainNote(pitchClass(pc), m.minorThird), m)
        const all = derivePairs(scale, null, placeOf(chord(ownSymbol(scale)), null), DEFAULT_WEIGHTS)?.all ?? []
        expect(all).toHaveLength(7)
        for (const [i, omission] of all.entries()) {
          const thirdsOn = (step: number) =>
            [0, 2, 4]
              .map((n) => scale.notes[(step + n) % 7]?.name)
              .sort()
              .join()
          const got = omission.groups
            .map((g) =>
              g.notes
                .map((n) => n.name)
                .sort()
                .join(),
            )
            .sort()
          expect(got, `${scale.name} without ${omission.degree}`).toEqual([thirdsOn(i + 1), thirdsOn(i + 2)].sort())
        }
      }
  })

  it('moves with the scale: the same steps in every key', () => {
    for (const m of MODES.map(([name]) => materialNamed(name))) {
      const steps = (pc: number) => {
        const scale = placeOn(plainNote(pitchClass(pc), m.minorThird), m)
        const d = derivePairs(scale, null, placeOf(chord(ownSymbol(scale)), null), DEFAULT_WEIGHTS)
        return JSON.stringify([
          d?.dropped?.omission.degree,
          d?.groups.map((g) => [g.triad?.material?.name, g.inversion, pitchClass((g.triad?.root.pc ?? 0) - pc)]),
          d?.all.map((o) => [o.degree, o.fade]),
        ])
      }
      for (let pc = 1; pc < 12; pc++) expect(steps(pc), `${m.name} on ${pc}`).toBe(steps(0))
    }
  })

  it('offers the other splits where a group is no triad in thirds', () => {
    const blues = derive('C minor blues', null, 'C7')
    expect(groups(blues)).toBe('C F G = undefined (null), Eb Gb Bb = Ebm (0)')
    expect(blues.dropped).toBeNull()
    const whole = blues.six.map((n) => n.pc).sort((a, b) => a - b)
    for (const split of derive('C augmented scale', null, 'Cmaj7').otherSplits.concat(blues.otherSplits))
      expect(split[0].set & split[1].set).toBe(0)
    expect(whole).toEqual([0, 3, 5, 6, 7, 10])
  })
})
