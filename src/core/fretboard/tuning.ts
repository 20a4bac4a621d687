import { readNote } from '../pitch/note.ts'
import { type Midi, midi } from '../pitch/units.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'

/** Open strings from the lowest, as note names with octaves (C4 is middle C). Source: the usual tunings. */
export const TUNINGS = [
  { id: 'guitar', name: 'Guitar, six strings', strings: 'E2 A2 D3 G3 B3 E4' },
  { id: 'guitar-7', name: 'Guitar, seven strings', strings: 'B1 E2 A2 D3 G3 B3 E4' },
  { id: 'bass-4', name: 'Bass, four strings', strings: 'E1 A1 D2 G2' },
  { id: 'bass-5', name: 'Bass, five strings', strings: 'B0 E1 A1 D2 G2' },
  { id: 'bass-6', name: 'Bass, six strings', strings: 'B0 E1 A1 D2 G2 C3' },
] as const

export type Tuning = readonly Midi[]
const MOST_STRINGS = 10

/**
 * Reads open strings from the lowest, such as `E2 A2 D3 G3`; an error carries the place of the word that is wrong.
 *
 *     tuning = string { " " string }            at most ten
 *     string = letter ["b" | "#"] octave
 */
export const readTuning = (text: string): Result<Tuning, TextError> => {
  const words = [...text.matchAll(/\S+/g)]
  const expected = ['open strings with octaves, such as E2 A2 D3 G3']
  if (words.length === 0) return fail({ code: 'empty', at: 0, found: '', expected })
  const strings: Midi[] = []
  for (const word of words) {
    const read = readNote(word[0], 0)
    const octave = read.ok ? /^-?\d$/.exec(word[0].slice(read.value.end)) : null
    if (!read.ok || !octave || strings.length === MOST_STRINGS)
      return fail({ code: 'unknown_note', at: word.index, found: word[0], expected })
    const { letter, alter } = read.value.note
    const natural = [0, 2, 4, 5, 7, 9, 11][letter] ?? 0
    strings.push(midi(12 * (Number(octave[0]) + 1) + natural + alter))
  }
  return ok(strings)
}
