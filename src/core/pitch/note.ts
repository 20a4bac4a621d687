import { groupedBy } from '../grouped.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import { type PitchClass, pitchClass } from './units.ts'

/** A spelled pitch class. `letter` counts C D E F G A B as 0..6, `alter` is -2..+2, `name` is ASCII (`Bb`, `F##`). */
export interface Note {
  readonly letter: number
  readonly alter: number
  readonly pc: PitchClass
  readonly name: string
}

const LETTERS = 'CDEFGAB'
const NATURAL = [0, 2, 4, 5, 7, 9, 11] as const
const SIGNS = ['bb', 'b', '', '#', '##'] as const

/** Every note there is, once: notes can be compared by identity. */
const NOTES: readonly (readonly Note[])[] = NATURAL.map((natural, letter) =>
  SIGNS.map((sign, i) =>
    Object.freeze({ letter, alter: i - 2, pc: pitchClass(natural + i - 2), name: LETTERS.charAt(letter) + sign }),
  ),
)

/** The note on this letter with this alteration, or undefined beyond a double accidental. */
export const noteOn = (letter: number, alter: number): Note | undefined => NOTES[((letter % 7) + 7) % 7]?.[alter + 2]

/** The note that spells `pc` on the given letter, or undefined where that takes a triple accidental. */
export const spellOn = (letter: number, pc: PitchClass): Note | undefined => {
  const folded = ((letter % 7) + 7) % 7
  const natural = NATURAL[folded] ?? 0
  return noteOn(folded, ((pc - natural + 18) % 12) - 6)
}

export type BlackKeys = readonly [string, string, string, string, string]
const FLAT_TABLE: BlackKeys = ['Db', 'Eb', 'F#', 'Ab', 'Bb']
const MINOR_TABLE: BlackKeys = ['C#', 'Eb', 'F#', 'Ab', 'Bb']
const BLACK = [1, 3, 6, 8, 10]
const byTable = (table: BlackKeys): readonly Note[] =>
  Array.from({ length: 12 }, (_, pc) => {
    const black = BLACK.indexOf(pc)
    const name = black >= 0 ? table[black] : undefined
    return NOTES.flat().find((n) => (name === undefined ? n.alter === 0 && n.pc === pc : n.name === name)) as Note
  })
const PLAIN = byTable(FLAT_TABLE)
const PLAIN_MINOR = byTable(MINOR_TABLE)

/** The usual spelling of a root nobody typed: C# Eb F# Ab Bb for minor-third materials, Db Eb F# Ab Bb for others. */
export const plainNote = (pc: PitchClass, minorThird = false): Note => (minorThird ? PLAIN_MINOR : PLAIN)[pc] as Note

const HARD_ROOTS: ReadonlySet<string> = new Set(['E#', 'B#', 'Cb', 'Fb'])

/** Whether it is a root nobody writes where there is a plain name: E sharp, B sharp, C flat, F flat. */
export const isHardRoot = (root: Note): boolean => HARD_ROOTS.has(root.name)

/** The note `step` letters and `semitones` above `from`; a triple accidental becomes the plain spelling. */
export const noteAbove = (from: Note, step: number, semitones: number): Note => {
  const pc = pitchClass(from.pc + semitones)
  return spellOn(from.letter + step, pc) ?? plainNote(pc)
}

const ACCIDENTALS: readonly (readonly [string, number])[] = [
  ['𝄫', -2],
  ['𝄪', 2],
  ['bb', -2],
  ['♭♭', -2],
  ['##', 2],
  ['♯♯', 2],
  ['x', 2],
  ['b', -1],
  ['♭', -1],
  ['#', 1],
  ['♯', 1],
]

/** The accidentals by the sign they begin with, longest first. */
const BY_FIRST_SIGN = groupedBy(ACCIDENTALS, ([sign]) => sign.charAt(0))

/**
 * Reads a note name at `at`: a capital letter and its accidentals in any usual sign. Gives the note and where it ends;
 * otherwise `unknown_note`. `readNote('Bbm7', 0)` is B flat, ending at 2.
 */
export const readNote = (text: string, at: number): Result<{ note: Note; end: number }, TextError> => {
  const letter = LETTERS.indexOf(text.charAt(at) || '?')
  if (letter < 0) {
    const found = text.slice(at).split(/[\s|,]/)[0] ?? ''
    return fail({ code: text.trim() ? 'unknown_note' : 'empty', at, found, expected: ['a note name from A to G'] })
  }
  const sign = BY_FIRST_SIGN.get(text.charAt(at + 1))?.find(([s]) => text.startsWith(s, at + 1))
  const note = noteOn(letter, sign?.[1] ?? 0) as Note
  return ok({ note, end: at + 1 + (sign?.[0].length ?? 0) })
}
