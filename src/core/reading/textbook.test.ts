import { describe, expect, it } from 'vitest'
import { readChord } from '../chord/parse.ts'
import { readOverlay } from '../material/read-overlay.ts'
import { parentsOf } from '../pairs/parents.ts'
import { placeOf, readOver, withHome } from './read.ts'
import { DEFAULT_SCHOOL } from './school.ts'
import { disagreements, servesOver, tensionEffects } from './serves.ts'
import { stacksOf } from './stacks.ts'
import { DEFAULT_WEIGHTS } from './weights.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const overlay = (text: string) => {
  const read = readOverlay(text)
  if (!read.ok) throw new Error(text)
  return read.value
}
const over = (what: string, symbol: string) => readOver(overlay(what), placeOf(chord(symbol), null))
const shown = (what: string, symbol: string) =>
  over(what, symbol)
    .notes.map((n) => `${n.note.name} ${n.degree} ${n.role}`)
    .join(', ')

describe('what every teacher says', () => {
  it.each([
    ['A & B+', 'A7', 'A 1 chord, C# 3 chord, E 5 chord, B 9 extension, D# #11 altered, F## b7 chord'],
    ['Eb & F+', 'Eb7', 'Eb 1 chord, G 3 chord, Bb 5 chord, F 9 extension, A #11 altered, C# b7 chord'],
    ['C & D+', 'C7', 'C 1 chord, E 3 chord, G 5 chord, D 9 extension, F# #11 altered, A# b7 chord'],
  ])('a triad and the augmented one a whole step above it, %s over %s', (what, symbol, expected) => {
    expect(shown(what, symbol)).toBe(expected)
  })

  it.each([
    ['E7 arpeggio', 'Am6', 'E 5 chord, G# 7 extension, B 9 extension, D 11 extension'],
    ['C7 arpeggio', 'Fm6', 'C 5 chord, E 7 extension, G 9 extension, Bb 11 extension'],
    ['F#7 arpeggio', 'Bm6', 'F# 5 chord, A# 7 extension, C# 9 extension, E 11 extension'],
  ])('the dominant of a minor sixth laid over it, %s over %s', (what, symbol, expected) => {
    expect(shown(what, symbol)).toBe(expected)
  })

  it.each([
    ['B C#', 'A7sus4', 'B 9 extension, C# 3 suspension'],
    ['F G', 'Eb9sus', 'F 9 extension, G 3 suspension'],
    ['D E', 'C13sus', 'D 9 extension, E 3 suspension'],
  ])('the 3 of a sus dominant, %s over %s', (what, symbol, expected) => {
    expect(shown(what, symbol)).toBe(expected)
  })

  it.each([
    ['Bm7b5', 'C C#'],
    ['F#m7b5', 'G G#'],
    ['Dm7b5', 'Eb E'],
  ])('the ninths over %s go by the school', (symbol, ninths) => {
    const roles = (halfDiminished: 'natural 9' | 'locrian') => {
      const place = placeOf(chord(symbol), null, { ...DEFAULT_SCHOOL, halfDiminished })
      return readOver(overlay(ninths), place).notes.map((n) => `${n.degree} ${n.role} ${n.inHome} ${n.fade}`)
    }
    expect(roles('natural 9')).toEqual(['b9 suspension false 50', '9 extension true 15'])
    expect(roles('locrian')).toEqual(['b9 suspension true 30', '9 extension false 35'])
  })

  it.each([
    ['C#', 'Am7'],
    ['G', 'Ebm7'],
    ['A#', 'F#m6'],
  ])('the natural 3 over a minor chord, %s over %s, rubs', (note, symbol) => {
    const third = over(`${note} ${symbol.replace(/m.*/, '')}`, symbol).notes[0]
    expect([third?.degree, third?.role, third?.rub, third?.fade]).toEqual(['3', 'outside', 'guide', 95])
  })
})

describe('the reverse question', () => {
  it('says over which chords an overlay is in, altered, out', () => {
    const served = servesOver(overlay('D minor pentatonic'), DEFAULT_SCHOOL, DEFAULT_WEIGHTS)
    const sits = (symbol: string) => served.find((s) => s.chord.symbol === chord(symbol).symbol)?.sits
    expect([sits('Dm7'), sits('F6'), sits('Bbmaj7'), sits('G7sus4')]).toEqual(['in', 'in', 'in', 'in'])
    expect([sits('B7'), sits('E7alt'), sits('Db7alt')]).toEqual(['altered', 'altered', 'out'])
    expect(sits('C#m7')).toBe('out')
    expect(served).toHaveLength(12 * 14)
  })
  it('knows which tension forces another home scale', () => {
    const effects = tensionEffects(placeOf(chord('C7'), chord('Fmaj7')))
    expect(effects.map((e) => `${e.tension} ${e.changes ? e.scale : 'keeps'}`)).toEqual([
      'b9 C half-whole',
      '9 keeps',
      '#9 C half-whole',
      '11 keeps',
      '#11 C lydian dominant',
      'b13 C phrygian dominant',
      '13 keeps',
    ])
  })
  it('lets the player put another home scale first', () => {
    const place = placeOf(chord('G7'), chord('Cmaj7'))
    const yours = withHome(place, overlay('G lydian dominant'))
    const role = (p: typeof place) => readOver(overlay('C# D'), p).notes[0]?.role
    expect([role(place), role(yours)]).toEqual(['altered', 'extension'])
    expect(yours.home.others[0]?.material.name).toBe('mixolydian')
  })
  it('says what an imagined chord and the sounding one disagree on', () => {
    const what = overlay('Gb Bb Db')
    const read = (symbol: string) => readOver(what, placeOf(chord(symbol), null))
    expect(disagreements(read('Eb7'), read('Ebm7'))).toEqual([
      { name: 'Gb', imagined: { degree: '#9', role: 'altered' }, sounding: { degree: 'b3', role: 'chord' } },
    ])
  })
})

describe('what stands in a scale, and what a pair comes from', () => {
  it('stacks a scale in thirds over a chord', () => {
    const rows = stacksOf(overlay('C ionian'), 'triads', placeOf(chord('Cmaj7'), null), DEFAULT_WEIGHTS)
    expect(rows.map((r) => `${r.makes?.name}: ${r.notes.map((n) => n.role.charAt(0)).join('')}`)).toEqual([
      'C: ccc',
      'Dm: ese',
      'Em: ccc',
      'F: sec',
      'G: cce',
      'Am: ecc',
      'Bdim: ces',
    ])
    const sevenths = stacksOf(overlay('Eb mixolydian'), 'sevenths', placeOf(chord('Eb7'), null), DEFAULT_WEIGHTS)
    expect(sevenths[0]?.makes?.name).toBe('Eb7 arpeggio')
    expect(sevenths.map((r) => r.degree)).toEqual(['1', '9', '3', '11', '5', '13', 'b7'])
  })
  it('finds the scales two triads can come from, and what they leave out', () => {
    const parents = parentsOf(overlay('Eb & Fm')).map((p) => `${p.scale.name} without ${p.omitted.join(' ')}`)
    expect(parents).toContain('Eb mixolydian without b7')
    expect(parents).toContain('Ab ionian without 4')
    expect(parents).toContain('F dorian without 6')
    expect(parents[0]).toMatch(/^Eb/)
  })
})
