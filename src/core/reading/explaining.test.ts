import { describe, expect, it } from 'vitest'
import { MATERIALS } from '../material/material.ts'
import { placeOn } from '../material/overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { has } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { chordNamed, overlayNamed, placeNamed } from '../testing/words.ts'
import { changesBetween, changesSentence, schoolEffects } from './changes.ts'
import { chordToneModes, rootlessNinth } from './chord-tones.ts'
import { compareSets, furtherOut, notesIn, triadOf } from './compare.ts'
import { placeOf, readOver, withHome } from './read.ts'
import { DEFAULT_SCHOOL } from './school.ts'
import { DEFAULT_WEIGHTS, type Weights } from './weights.ts'
import { whyOf } from './why.ts'

const OTHER_EARS: Weights = {
  ...DEFAULT_WEIGHTS,
  ninth: 3,
  awayFromHome: 37,
  alteredHeld: 11,
  rubGuide: 100,
  meanShare: 40,
  altered: { '#11': 31, b13: 61, '#9': 7, b9: 77 },
}
const OVER = [
  'A7',
  'A7#11',
  'C7alt',
  'Fmaj7',
  'F#m7',
  'Bm7b5',
  'Gdim7',
  'E7sus4',
  'Dm(maj7)',
  'C+',
  'G7b9b13',
  'E5',
] as const

describe('why this number', () => {
  it.each(OVER)('unfolds every figure into its sum, by any ears, over %s', (symbol) => {
    const place = placeNamed(symbol, 'Dbmaj7')
    for (const weights of [DEFAULT_WEIGHTS, OTHER_EARS])
      for (const material of MATERIALS)
        for (const pc of [0, 3, 5, 10]) {
          const reading = readOver(placeOn(plainNote(pitchClass(pc)), material), place, weights)
          const why = whyOf(reading, weights)
          for (const n of why.notes)
            expect(
              n.terms.reduce((sum, t) => sum + t.amount, 0),
              `${n.note.note.name} of ${reading.overlay.name}`,
            ).toBe(n.note.fade)
          const fade = (why.meanShare * why.mean + (100 - why.meanShare) * why.worst) / 100
          expect(Math.abs(reading.fade - fade)).toBeLessThanOrEqual(0.5 + 1e-9)
          const { sum = 0, counts = 1 } = why.landing ?? {}
          expect(reading.landing).toBe(Math.round(sum / counts))
        }
  })
})

describe('schools disagree', () => {
  it.each([
    ['A mixolydian', 'A7', 'Dmaj7', 'fourOverDominant', 'colour', 'D, suspension at 30, becomes extension at 20'],
    ['A mixolydian', 'A7', 'Dmaj7', 'fourOverDominant', 'left out', 'D, suspension at 30, becomes outside at 95'],
    ['C ionian', 'Cmaj7', 'Am7', 'suspensions', 'free', 'F, suspension at 30, becomes extension at 20'],
    ['B dorian', 'Bm7b5', 'E7', 'fiveOverHalfDiminished', 'welcome', 'F#, outside at 85, becomes extension'],
    ['B locrian', 'Bm7b5', 'E7', 'halfDiminished', 'locrian', 'C, suspension at 50, becomes suspension'],
    ['A altered', 'A7', 'Dmaj7', 'dominantHome', 'altered first', 'Bb moves from 50 to 30'],
  ] as const)('%s over %s to %s: %s, %s', (over, symbol, next, setting, choice, words) => {
    const reading = readOver(overlayNamed(over), placeNamed(symbol, next))
    const effect = schoolEffects(reading, DEFAULT_WEIGHTS).find((e) => e.setting === setting && e.choice === choice)
    if (!effect) throw new Error(setting)
    const said = changesSentence(reading, effect.after)
    expect(said.replace('becomes suspension at', 'moves to')).toContain(
      words.replace('C, suspension at 50, becomes suspension', 'C moves from 50 to 30'),
    )
    const other = { ...DEFAULT_SCHOOL, [setting]: choice }
    expect(effect.after).toEqual(readOver(overlayNamed(over), placeNamed(symbol, next, other)))
    expect(effect.changes).toEqual(changesBetween(reading, effect.after))
  })

  it('changes nothing where a choice is the one in force', () => {
    const reading = readOver(overlayNamed('A altered'), placeNamed('A7', 'Dmaj7'))
    for (const e of schoolEffects(reading, DEFAULT_WEIGHTS).filter((x) => x.chosen)) {
      expect(e.changes).toEqual([])
      expect(changesSentence(reading, e.after)).toBe('Nothing changes here.')
    }
  })

  it('says what another home scale changes', () => {
    const place = placeNamed('A7', 'Dmaj7')
    const over = overlayNamed('A altered')
    const [before, after] = [readOver(over, place), readOver(over, withHome(place, overlayNamed('A half-whole')))]
    expect(changesSentence(before, after)).toBe(
      'Bb moves from 50 to 30; C moves from 45 to 25; Eb moves from 35 to 15; the fade goes from 32 to 23.',
    )
  })
})

describe('side by side', () => {
  it('finds what all hold and what one alone does', () => {
    const sets = ['A & B+', 'A altered', 'C minor pentatonic'].map((n) => overlayNamed(n).set)
    const { shared, own } = compareSets(sets)
    for (let pc = 0; pc < 12; pc++) {
      const holders = sets.filter((s) => has(s, pc))
      expect(has(shared, pc)).toBe(holders.length === 3)
      for (const [i, s] of sets.entries()) expect(has(own[i] ?? s, pc)).toBe(has(s, pc) && holders.length === 1)
    }
    expect(compareSets([])).toEqual({ shared: 0, own: [] })
    const reading = readOver(overlayNamed('A & B+'), placeNamed('A7'))
    expect(notesIn(reading, own[0] as (typeof sets)[number]).map((n) => n.heard.name)).toEqual(['E', 'B'])
  })

  it('tells the triads of a pair apart', () => {
    const of = (pair: string) => {
      const reading = readOver(overlayNamed(pair), placeNamed('A7'))
      return reading.notes.map((n) => `${n.note.name} ${triadOf(reading, n)}`)
    }
    expect(of('A & B+')).toEqual(['A first', 'C# first', 'E first', 'B second', 'D# second', 'F## second'])
    expect(of('C & Am')).toEqual(['C both', 'E both', 'G first', 'A second'])
    expect(of('C dorian')).toContain('C null')
  })
})

describe('what grows on a chord', () => {
  it.each([
    ['C7', 'Fmaj7', 'C mixolydian, E locrian, G dorian, Bb lydian', 'Em7b5 arpeggio'],
    ['Cmaj7', null, 'C ionian, E phrygian, G mixolydian, B locrian', 'Em7 arpeggio'],
    ['Cm7', 'F7', 'C dorian, Eb lydian, G aeolian, Bb ionian', 'Ebmaj7 arpeggio'],
    ['C7alt', null, 'C altered, E lydian augmented, Bb locrian natural 9', null],
    ['Bm7b5', 'E7', 'B locrian natural 9, D melodic minor, F lydian augmented, A mixolydian b6', null],
    ['C', null, 'C ionian, E phrygian, G mixolydian', null],
  ] as const)('%s: its modes and its ninth without the root', (symbol, next, modes, ninth) => {
    const place = placeNamed(symbol, next)
    const found = chordToneModes(place)
    expect(found.map((m) => m.mode?.name).join(', ')).toBe(modes)
    const scale = place.home.first.set
    for (const m of found)
      expect([...(m.mode?.notes ?? [])].every((n) => has(scale, pitchClass(n.pc - place.chord.root.pc)))).toBe(true)
    if (ninth) expect(rootlessNinth(place, DEFAULT_WEIGHTS)?.overlay.name).toBe(ninth)
  })
  it('has no rootless ninth without a seventh', () => {
    expect(rootlessNinth(placeNamed('C'), DEFAULT_WEIGHTS)).toBeNull()
    expect(rootlessNinth(placeOf(chordNamed('Dm7b5'), null), DEFAULT_WEIGHTS)?.notes.map((n) => n.degree)).toEqual([
      'b3',
      'b5',
      'b7',
      '9',
    ])
  })
})

describe('which of two is further out, and why', () => {
  const over = (chord: string, next: string, overlay: string) =>
    readOver(overlayNamed(overlay), placeNamed(chord, next), DEFAULT_WEIGHTS)
  it('names by how much, and the notes that make it so', () => {
    const [out, near] = [over('Eb7', 'Abmaj7', 'D'), over('Eb7', 'Abmaj7', 'Bbm')]
    const told = furtherOut(near, out)
    expect(told).toBe(furtherOut(out, near))
    expect(told).toContain(`D is further out than Bbm by ${out.fade - near.fade}: its 7, D, rubs against Db`)
  })
  it('says so where neither is, and gives a reason wherever one is', () => {
    const home = over('Cmaj7', 'Fmaj7', 'G')
    expect(furtherOut(home, home)).toBe('G and G lie equally far out.')
    for (const a of ['C', 'Em', 'D', 'F# major pentatonic', 'C ionian'])
      for (const b of ['G', 'Bb', 'A & B', 'C lydian']) {
        const [x, y] = [over('Cmaj7', 'Fmaj7', a), over('Cmaj7', 'Fmaj7', b)]
        if (x.fade !== y.fade) expect(furtherOut(x, y)).toMatch(/^.+ is further out than .+ by \d+: .{12,}\.$/)
      }
  })
})
