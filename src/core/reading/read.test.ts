import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { MATERIALS } from '../material/material.ts'
import { placeOn } from '../material/overlay.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { mendsOf } from './mends.ts'
import { placeOf, type Reading, readOver } from './read.ts'
import { DEFAULT_SCHOOL, type School } from './school.ts'
import { noteSentence } from './sentence.ts'
import { DEFAULT_WEIGHTS } from './weights.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}

const reading = (overlay: string, over: string, to: string | null, school: Partial<School> = {}): Reading => {
  const read = readOverlay(overlay)
  if (!read.ok) throw new Error(overlay)
  return readOver(read.value, placeOf(chord(over), to === null ? null : chord(to), { ...DEFAULT_SCHOOL, ...school }))
}

/** One letter per role: c chord, e extension, a altered, s suspension, o outside; `!` rubs, `x` denied. */
const shown = (r: Reading): string =>
  r.notes
    .map((n) => `${n.note.name}=${n.degree}${n.role.charAt(0)}${n.rub ? '!' : ''}${n.denied ? 'x' : ''}${n.fade}`)
    .join(' ')

/** Worked out by hand from the rules: overlay, chord, next, notes, fade, landing. */
const CASES: readonly (readonly [string, string, string | null, string, number, number | null])[] = [
  ['B dorian', 'Eb7', 'Abmaj7', 'B=b13a40 C#=b7c0 D=7o!95 E=b9a50 F#=#9a45 G#=11s30 A=#11a35', 58, 82],
  ['G dorian', 'B7', 'Emaj7', 'G=b13a40 A=b7c0 Bb=7o!95 C=b9a50 D=#9a45 E=11s30 F=#11a35', 58, 82],
  ['D minor pentatonic', 'B7', 'E7', 'D=#9a45 F=#11a35 G=b13a40 A=b7c0 C=b9a50', 39, 79],
  ['B+', 'A7', null, 'B=9e15 D#=#11a35 F##=b7c0', 22, null],
  ['C#m', 'Bm7', null, 'C#=9e15 E=11e20 G#=13e20', 19, null],
  ['Ab half-whole', 'Ab7b9', null, 'Ab=1c0 Bbb=b9a30 B=#9a25 C=3c0 D=#11a15 Eb=5c0 F=13e20 Gb=b7c0', 17, null],
  ['A dim7', 'Ab7', 'Dbmaj7', 'A=b9a50 C=3c0 Eb=5c0 Gb=b7c0', 24, 76],
  ['B & C#+', 'B7', 'Emaj7', 'B=1c0 D#=3c0 F#=5c0 C#=9e15 E#=#11a35 G##=b7c0', 16, 64],
  ['B lydian dominant', 'B7', 'Emaj7', 'B=1c0 C#=9e15 D#=3c0 E#=#11a35 F#=5c0 G#=13e20 A=b7c0', 18, 62],
  ['F7 arpeggio', 'B7', 'Emaj7', 'F=#11a35 A=b7c0 C=b9a50 Eb=3c0', 30, 83],
  // A bebop scale's added note counts in the mean, not as the worst.
  ['B bebop dominant', 'B7', null, 'B=1c0 C#=9e15 D#=3c0 E=11s30 F#=5c0 G#=13e20 A=b7c0 A#=7o!95', 23, null],
  // The natural 3 over a minor chord rubs; b9 lies a semitone from the root.
  ['E', 'Em7', null, 'E=1c0 G#=3o!95 B=5c0', 51, null],
  ['F#m', 'Em6', null, 'F#=9e15 A=11e20 C#=6c0', 14, null],
  // A static dominant holds only #9 and #11 as altered.
  ['Db half-whole', 'C7', 'Bbm7', 'Db=b9o!85 Ebb=9e15 E=3c0 F=11s30 G=5c0 Ab=b13o70 Bb=b7c0 Cb=7o!95', 54, 60],
  ['C altered', 'C7', 'F#m7', 'C=1c0 Db=b9o!85 Eb=#9a45 Fb=3c0 Gb=#11a35 Ab=b13o70 Bb=b7c0', 49, 70],
  // What the symbol denies.
  ['D minor pentatonic', 'C7alt', null, 'D=9ox85 F=11s50 G=5ox85 A=13o!x95 C=1c0', 73, null],
  ['G', 'Bm7b5', null, 'G=b13e20 B=1c0 D=b3c0', 11, null],
  ['F#', 'Bm7b5', null, 'F#=5ox85 A#=7o!95 C#=9e15', 74, null],
  // 9 and 13 over a dominant going to minor are extensions, away from home.
  ['D G', 'C7', 'Fm6', 'D=9e35 G=5c0', 23, 73],
  ['E A', 'C7sus4', 'Fmaj7', 'E=3s30 A=13e20', 27, 68],
  ['F#', 'Cmaj7', null, 'F#=#11e25 A#=b7o!95 C#=b9o!85', 76, null],
  // A triad leaves its seventh open, a power chord its third too.
  ['Bb B', 'Cm', null, 'Bb=b7e40 B=7e20', 33, null],
  ['Eb E', 'C5', null, 'Eb=#9e40 E=3e40', 40, null],
  ['F', 'Cmaj7', 'G7', 'F=11s30 A=13e20 C=1c0', 21, 58],
]

describe('a reading', () => {
  it.each(CASES)('%s over %s to %s', (overlay, over, to, notes, fade, landing) => {
    const r = reading(overlay, over, to)
    expect(shown(r)).toBe(notes)
    expect([r.fade, r.landing]).toEqual([fade, landing])
  })

  it('names each way home: half steps, guide tones first', () => {
    const r = reading('B dorian', 'Eb7', 'Abmaj7')
    const best = r.notes.map((n) => n.exits[0]).map((e) => e && `${e.how} ${e.to.name} ${e.degree} ${e.strength}`)
    expect(best).toEqual([
      'half step up C 3 1',
      'half step down C 3 1',
      'half step up Eb 5 0.8',
      'half step down Eb 5 0.8',
      'half step up G 7 1',
      'held Ab 1 0.45',
      'half step down Ab 1 0.8',
    ])
    expect(r.notes.map((n) => n.heard.name)).toEqual(['Cb', 'Db', 'D', 'Fb', 'F#', 'Ab', 'A'])
  })

  it('tells held notes, and notes with no way out', () => {
    const held = reading('G', 'Cmaj7', 'Cmaj7').notes.map((n) => n.exits[0]?.how)
    expect(held).toEqual(['held', 'half step up', 'whole step up'])
    const lost = reading('E G', 'G7', 'C7no3')
    expect(lost.noExit.map((n) => n.note.name)).toEqual(['E'])
    expect(lost.landing).toBe(15)
  })

  it('says a note in a sentence', () => {
    const r = reading('B dorian', 'Eb7', 'Abmaj7')
    const d = r.notes[2]
    expect(d && noteSentence(d, r)).toBe(
      'D is the 7 over Eb7: it rubs against Db, and rises a half step to Eb, the 5 of Abmaj7.',
    )
  })

  it('keeps the 6 of a ii back for its V, and only there', () => {
    const kept = (over: string, to: string | null) => reading('D#', over, to).notes.map((n) => n.keptBack)
    expect(kept('F#m7', 'B7')).toEqual([true, false, false])
    expect(kept('F#m7', 'B7sus4')).toEqual([false, false, false])
    expect(kept('F#m7', 'Emaj7')).toEqual([false, false, false])
    expect(kept('F#m7', null)).toEqual([false, false, false])
  })

  it('follows the schools where they disagree', () => {
    const roles = (overlay: string, over: string, school: Partial<School>) =>
      reading(overlay, over, null, school).notes.map((n) => n.role)
    expect(roles('F G', 'C7', {})).toEqual(['suspension', 'chord'])
    expect(roles('F G', 'C7', { fourOverDominant: 'colour' })).toEqual(['extension', 'chord'])
    expect(roles('F G', 'C7', { fourOverDominant: 'left out' })).toEqual(['outside', 'chord'])
    expect(roles('C C#', 'Bm7b5', {})).toEqual(['suspension', 'extension'])
    expect(roles('F# B', 'Bm7b5', { fiveOverHalfDiminished: 'welcome' })).toEqual(['extension', 'chord'])
    expect(reading('C C#', 'Bm7b5', null, { halfDiminished: 'locrian' }).notes.map((n) => n.inHome)).toEqual([
      true,
      false,
    ])
  })

  it('offers mends that lower the fade, best first, never onto a note it holds', () => {
    const r = reading('G dorian', 'B7', 'Emaj7')
    const mends = mendsOf(r, DEFAULT_WEIGHTS)
    expect(mends[0] && [mends[0].from.name, mends[0].to.name, mends[0].becomes.name, mends[0].fade]).toEqual([
      'Bb',
      'B',
      'G mixolydian',
      35,
    ])
    for (const m of mends) {
      expect(m.fade).toBeLessThan(r.fade)
      expect(m.becomes.set & ~r.overlay.set & ~(1 << m.to.pc)).toBe(0)
    }
  })
})

describe('transposition commutes with reading', () => {
  const CHORDS = [
    'maj7',
    '6',
    '',
    'm7',
    'm6',
    'mMaj7',
    '7',
    '7b9',
    '7alt',
    '7#11',
    '7#5',
    '7sus4',
    '7sus4b9',
    'm7b5',
    'dim7',
    '+',
    'maj7#5',
    '13',
    '5',
  ]
  const facts = (r: Reading) =>
    JSON.stringify([
      r.fade,
      r.landing,
      r.notes.map((n) => [
        n.degree,
        n.role,
        n.fade,
        n.rub,
        n.denied,
        n.inHome,
        n.exits.map((e) => [e.how, e.degree, e.strength]),
      ]),
    ])
  it.each(CHORDS)('over every C%s', (quality) => {
    for (const m of MATERIALS)
      for (const up of [0, 1, 4, 6, 10]) {
        const at = (key: number) => {
          const root = plainNote(pitchClass(key))
          const next = plainNote(pitchClass(key + 5))
          const place = placeOf(chord(root.name + quality), chord(`${next.name}maj7`))
          return facts(readOver(placeOn(plainNote(pitchClass(key + up)), m), place))
        }
        const first = at(0)
        for (let key = 1; key < 12; key++) expect(at(key), `${m.name} +${up} in ${key}`).toBe(first)
      }
  })
})
