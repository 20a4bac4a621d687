import { describe, expect, it } from 'vitest'
import { sizeOf } from '../pitch/pcset.ts'
import { FAR_SCALES } from './catalogue.ts'
import { MATERIALS, nameOn } from './material.ts'
import { namesOf } from './naming.ts'
import { readOverlay } from './read-overlay.ts'

const notes = (text: string): string => {
  const read = readOverlay(text)
  return read.ok ? read.value.notes.map((n) => n.name).join(' ') : `${read.error.at} ${read.error.found}`
}

describe('materials', () => {
  it.each([
    ['Ab minor pentatonic', 'Ab Cb Db Eb Gb'],
    ['B dorian', 'B C# D E F# G# A'],
    ['E major pentatonic', 'E F# G# B C#'],
    ['Eb phrygian dominant', 'Eb Fb G Ab Bb Cb Db'],
    ['F half-whole', 'F Gb G# A B C D Eb'],
    ['Ab half-whole', 'Ab Bbb B C D Eb F Gb'],
    ['C whole-half', 'C D Eb F Gb Ab Bbb B'],
    ['Bb whole tone', 'Bb C D E F# Ab'],
    ['G altered', 'G Ab Bb Cb Db Eb F'],
    ['D lydian dominant', 'D E F# G# A B C'],
    ['A locrian natural 9', 'A B C D Eb F G'],
    ['E dim7', 'E G Bb Db'],
    ['A dim7 arpeggio', 'A C Eb Gb'],
    ['Em7b5 arpeggio', 'E G Bb D'],
    ['B+', 'B D# F##'],
    ['C#m', 'C# E G#'],
    ['Esus', 'E A B'],
    ['E lydian triad', 'E A# B'],
    ['Ab & Bb+', 'Ab C Eb Bb D F#'],
    ['A & Eb', 'A C# E Eb G Bb'],
    ['Gb B C#', 'Gb B C#'],
    ['Ebm pent', 'Eb Gb Ab Bb Db'],
    ['E♭ half–whole', 'Eb Fb F# G A Bb C Db'],
  ])('%s', (text, expected) => {
    expect(notes(text)).toBe(expected)
  })

  it.each([
    ['Bb foo', '3 foo'],
    ['  H dorian', '2 H'],
    ['Ab & Bb dorian', '5 Bb dorian'],
    ['Ab &', '4 '],
    ['', '0 '],
  ])('refuses “%s”', (text, where) => {
    expect(notes(text)).toBe(where)
  })

  it('reads every row of the catalogue back from its printed name, and from its other names', () => {
    expect(MATERIALS.length).toBeGreaterThan(60)
    for (const m of MATERIALS)
      for (const name of [nameOn('F#', m), ...m.otherNames.filter((n) => /^[a-z]/.test(n)).map((n) => `F# ${n}`)]) {
        const read = readOverlay(name)
        expect(read.ok && read.value.material?.name, name).toBe(m.name)
      }
  })

  it('spells each seven-note mode with each letter once', () => {
    const modes = MATERIALS.filter((m) => m.family === 'mode' && m.formula.length === 7)
    expect(modes.length).toBe(28 + FAR_SCALES.length)
    for (const m of modes)
      for (const root of ['C', 'G', 'D', 'A', 'E', 'B', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'F#', 'C#'])
        expect(new Set([...notes(nameOn(root, m)).matchAll(/[A-G]/g)].map(String)).size, nameOn(root, m)).toBe(7)
  })

  it('lets equal sets know each other', () => {
    const read = readOverlay('E major pentatonic')
    if (!read.ok) throw new Error('unread')
    expect(namesOf(read.value.set, read.value).map((o) => o.name)).toContain('C# minor pentatonic')
    expect(sizeOf(read.value.set)).toBe(5)
  })
})
