import { describe, expect, it } from 'vitest'
import { noteOn } from '../pitch/note.ts'
import { setOf } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { tonesOf } from './chord.ts'
import { chordNamed, foreignTo, nameChord } from './from-notes.ts'
import { readChord } from './parse.ts'

const chord = (symbol: string) => {
  const read = readChord(symbol)
  if (!read.ok) throw new Error(symbol)
  return read.value
}
const named = (pcs: readonly number[], bass: number | null) => {
  const sounding = { set: setOf(pcs), bass: bass === null ? null : pitchClass(bass) }
  const found = nameChord(sounding)
  return found && chordNamed(found, sounding.bass)
}

describe('a chord from its notes', () => {
  const PLAIN = [
    '',
    'm',
    '7',
    'maj7',
    'm7',
    '6',
    'm6',
    'm7b5',
    'dim7',
    'mMaj7',
    '7sus4',
    '9',
    'maj9',
    'm9',
    '13',
    '7b9',
    '7#9',
    'maj7#11',
    '7#5',
    '7b9b13',
    '13b9',
  ]
  it.each(PLAIN)('over its own root, all of it struck, in twelve keys: %s', (quality) => {
    const own = tonesOf(chord(`C${quality}`)).map((t) => t.note.pc)
    for (let up = 0; up < 12; up++) {
      const found = named(
        own.map((pc) => pitchClass(pc + up)),
        up,
      )
      expect(found && tonesOf(found).map((t) => pitchClass(t.note.pc - up))).toEqual(own)
    }
  })
  it.each([
    ['3 and 7 over the root', [0, 4, 10], 0, 'C7'],
    ['a rootless voicing over its root', [2, 5, 7, 11], 7, 'G7'],
    ['a triad over its third', [0, 4, 7], 4, 'C/E'],
    ['a triad over the 9 of its root', [5, 9, 0], 7, 'F/G'],
    ['a sixth chord, by its bass', [0, 4, 7, 9], 0, 'C6'],
    ['a minor seventh of the same notes', [0, 4, 7, 9], 9, 'Am7'],
    ['half-diminished', [9, 0, 3, 7], 9, 'Am7b5'],
    ['and its minor sixth', [9, 0, 3, 7], 0, 'Cm6'],
    ['without a bass the plainest root', [0, 4, 7], null, 'C'],
  ] as const)('%s', (_, pcs, bass, symbol) => {
    const found = named(pcs, bass)
    expect(found && [found.symbol, chord(symbol).symbol]).toEqual([chord(symbol).symbol, chord(symbol).symbol])
  })
  it('of fewer than three different notes none is made', () => {
    expect(nameChord({ set: setOf([0, 4]), bass: pitchClass(0) })).toBeNull()
  })
  it('is spelled as it is asked to be', () => {
    const found = nameChord({ set: setOf([1, 5, 8, 11]), bass: pitchClass(1) })
    if (!found) throw new Error('no chord')
    expect(chordNamed(found, found.root).symbol).toBe('Db7')
    expect(chordNamed(found, found.root, (pc) => (pc === 1 ? (noteOn(0, 1) ?? null) : null)).symbol).toBe('C#7')
    expect(foreignTo(found, setOf([1, 2, 5, 6]))).toBe(2)
  })
})
