import { type Note, noteAbove } from './note.ts'

/** A degree above a root: `step` 1..13, `semitones` from the root (may pass 12), `name` ASCII (`b9`, `#11`, `bb7`). */
export interface Degree {
  readonly step: number
  readonly alter: number
  readonly semitones: number
  readonly name: string
}

const MAJOR_STEPS = [0, 2, 4, 5, 7, 9, 11]
const FORM = /^(bb|b|#)?(1[0-3]|[1-9])$/

/** Whether a text names a degree, as `b9`, `#11` or `13` do. */
export const isDegree = (name: string): boolean => FORM.test(name)

const known = new Map<string, Degree>()

/** The degree named by a constant of our own tables; throws on a misspelt one, which is a bug and not an input. */
export const degree = (name: string): Degree => {
  const before = known.get(name)
  if (before) return before
  const match = FORM.exec(name)
  if (!match) throw new Error(`not a degree: ${name}`)
  const step = Number(match[2])
  const alter = match[1] === 'bb' ? -2 : match[1] === 'b' ? -1 : match[1] === '#' ? 1 : 0
  const semitones = (MAJOR_STEPS[(step - 1) % 7] ?? 0) + (step > 7 ? 12 : 0) + alter
  const made = Object.freeze({ step, alter, semitones, name })
  known.set(name, made)
  return made
}

/** A formula of our own tables, such as `1 b3 4 5 b7`. */
export const degrees = (formula: string): readonly Degree[] => formula.split(' ').map(degree)

/** The note that is this degree above the root. */
export const spell = (root: Note, d: Degree): Note => noteAbove(root, d.step - 1, d.semitones)
