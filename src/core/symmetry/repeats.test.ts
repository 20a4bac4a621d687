import { describe, expect, it } from 'vitest'
import { DIRECTIONS, namedTowards } from '../material/direction.ts'
import { MATERIALS } from '../material/material.ts'
import { placeOn } from '../material/overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { overlayNamed } from '../testing/words.ts'
import { holdsDiminished, repeatsOf, transpositionsOf } from './transpositions.ts'

describe('symmetric scales', () => {
  it.each([
    ['F half-whole', 3, 'F G# B D'],
    ['F whole-half', 3, 'F Ab Cb Ebb'],
    ['C whole tone', 2, 'C D E F# G# Bb'],
    ['C augmented scale', 4, 'C E G#'],
    ['C inverse augmented scale', 4, 'C E G#'],
    ['C tritone scale', 6, 'C F#'],
    ['C third limited mode', 4, 'C E Ab'],
    ['E ionian', 12, 'E'],
  ] as const)('%s has %i different transpositions and begins again on %s', (name, distinct, again) => {
    const scale = overlayNamed(name)
    const all = transpositionsOf(scale)
    expect(new Set(all.map((o) => o.set)).size).toBe(distinct)
    expect(all).toHaveLength(distinct)
    expect(repeatsOf(scale).map((o) => o.root.pc)).toEqual(
      again.split(' ').map((n) => overlayNamed(`${n} ionian`).root.pc),
    )
    for (const o of repeatsOf(scale)) expect(o.set).toBe(scale.set)
  })
  it('knows which notes carry a diminished seventh', () => {
    const on = (name: string) => {
      const scale = overlayNamed(name)
      return scale.notes.filter((n) => holdsDiminished(scale, n)).map((n) => n.name)
    }
    expect(on('F half-whole')).toHaveLength(8)
    expect(on('C whole tone')).toEqual([])
    expect(on('A harmonic minor')).toEqual(['B', 'D', 'F', 'G#'])
  })
})

describe('the way black keys are named', () => {
  it('never changes a note, and leaves white roots alone', () => {
    for (const material of MATERIALS)
      for (let pc = 0; pc < 12; pc++) {
        const overlay = placeOn(plainNote(pitchClass(pc)), material)
        for (const direction of DIRECTIONS) {
          const named = namedTowards(overlay, direction)
          expect(named.set).toBe(overlay.set)
          if (overlay.root.alter === 0) expect(named.root).toBe(overlay.root)
          else if (direction !== 'as usual') expect(named.root.alter).toBe(direction === 'flats' ? -1 : 1)
        }
      }
    expect(namedTowards(overlayNamed('F# & Eb+'), 'flats').name).toBe('Gb & Eb+')
    expect(namedTowards(overlayNamed('Gb B Db'), 'sharps').name).toBe('F# B C#')
  })
})
