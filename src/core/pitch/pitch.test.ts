import { describe, expect, expectTypeOf, it } from 'vitest'
import { degree, spell } from './degree.ts'
import { toAscii, toGlyphs } from './glyphs.ts'
import { INSTRUMENTS } from './instrument.ts'
import { type Note, plainNote, readNote } from './note.ts'
import { periodOf, rotate, setOf, sizeOf } from './pcset.ts'
import { moveRoot, reverse, writtenRoot } from './transpose.ts'
import { midi, type PitchClass, pitchClass, type Ticks, ticks } from './units.ts'

const note = (name: string): Note => {
  const read = readNote(name, 0)
  if (!read.ok || read.value.end !== name.length) throw new Error(name)
  return read.value.note
}

describe('notes', () => {
  it.each([
    ['Cb', 11],
    ['B#', 0],
    ['E♭', 3],
    ['F♯', 6],
    ['Gx', 9],
    ['G𝄪', 9],
    ['Bbb', 9],
    ['B𝄫', 9],
    ['A##', 11],
  ])('%s is pitch class %i', (name, pc) => {
    expect(note(name).pc).toBe(pc)
  })

  it.each([
    ['Eb', 'b9', 'Fb'],
    ['Eb', 'b13', 'Cb'],
    ['B', '#9', 'C##'],
    ['Ab', 'bb7', 'Gbb'],
    ['C', '#11', 'F#'],
    ['D', 'b7', 'C'],
  ])('over %s the %s is %s', (root, name, expected) => {
    expect(spell(note(root), degree(name)).name).toBe(expected)
  })

  it('spells a root nobody typed by the table of black keys', () => {
    expect([1, 3, 6, 8, 10].map((pc) => plainNote(pitchClass(pc)).name)).toEqual(['Db', 'Eb', 'F#', 'Ab', 'Bb'])
    expect(plainNote(pitchClass(1), true).name).toBe('C#')
  })

  it('prints true accidentals, and only where they are accidentals', () => {
    expect(toGlyphs('Ebm7b5')).toBe('E♭m7♭5')
    expect(toGlyphs('F##')).toBe('F𝄪')
    expect(toGlyphs('Bb bebop dominant over Bbb7(b9,#11)')).toBe('B♭ bebop dominant over B𝄫7(♭9,♯11)')
    expect(toAscii('E♭m7♭5 𝄫7')).toBe('Ebm7b5 bb7')
  })

  it('keeps units apart', () => {
    expectTypeOf(ticks(1)).toEqualTypeOf<Ticks>()
    // @ts-expect-error a MIDI number is not a pitch class
    const wrong: PitchClass = midi(60)
    expect(wrong).toBe(60)
  })
})

describe('sets', () => {
  it('repeat at their period', () => {
    expect(periodOf(setOf([0, 2, 4, 6, 8, 10]))).toBe(2)
    expect(periodOf(setOf([0, 1, 3, 4, 6, 7, 9, 10]))).toBe(3)
    expect(periodOf(setOf([0, 4, 8]))).toBe(4)
    expect(periodOf(setOf([0, 4, 7]))).toBe(12)
  })
  it('keep their size when they are moved, any way round', () => {
    for (let set = 0; set < 4096; set += 7)
      for (const n of [-13, -1, 0, 5, 12, 27]) {
        const moved = rotate(setOf([...Array(12).keys()].filter((p) => (set >> p) & 1)), n)
        expect(sizeOf(rotate(moved, -n))).toBe(sizeOf(moved))
      }
  })
})

describe('written pitch', () => {
  it.each([
    ['bb', 'E', 'F#'],
    ['bb', 'A', 'B'],
    ['bb', 'Db', 'Eb'],
    ['bb', 'D#', 'F'],
    ['bb', 'F#', 'G#'],
    ['eb', 'Eb', 'C'],
    ['eb', 'B', 'G#'],
    ['eb', 'D#', 'C'],
    ['f', 'Bb', 'F'],
    ['f', 'E', 'B'],
  ])('on a %s instrument concert %s is written %s', (id, concert, written) => {
    const { written: by } = INSTRUMENTS.find((i) => i.id === id) ?? INSTRUMENTS[0]
    expect(writtenRoot(note(concert), by).name).toBe(written)
  })
  it('goes there and back to the same pitch', () => {
    for (const { written } of INSTRUMENTS)
      for (const name of ['C', 'Db', 'F#', 'Gb', 'B', 'E#', 'Cb'])
        expect(moveRoot(writtenRoot(note(name), written), reverse(written)).pc).toBe(note(name).pc)
  })
})
