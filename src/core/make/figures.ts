import { fail, ok, type Result, type TextError } from '../result.ts'

/**
 * The order of notes within a group: places counted from the group's first note, 1-based, negative below it (-1 is the
 * place right under 1), and by how many places the next group begins further on. Source: make page, figures.
 */
export interface Figure {
  readonly places: readonly number[]
  readonly step: number
}

/** One row: [name as the field says it, figure]. */
export const FIGURES = [
  ['scale', '1'],
  ['thirds', '1 3'],
  ['thirds, falling', '3 1'],
  ['a third round the note between', '3 1 2'],
  ['broken thirds', '1 3 2 4 step 2'],
  ['fourths', '1 4'],
  ['fifths', '1 5'],
  ['stacked fourths', '1 4 7'],
  ['stacked fifths', '1 5 9'],
  ['triads', '1 3 5'],
  ['triads, falling', '5 3 1'],
  ['triads, alternating', '1 3 5 6 4 2 step 2'],
  ['sevenths', '1 3 5 7'],
  ['sevenths, falling', '7 5 3 1'],
  ['sevenths, alternating', '1 3 5 7 8 6 4 2 step 2'],
  ['1 2 3 5', '1 2 3 5'],
  ['threes', '1 2 3'],
  ['fours', '1 2 3 4'],
  ['fives', '1 2 3 4 5'],
  ['turn on a triad', '1 3 5 3'],
  ['neighbour below', '1 -1 1 2'],
] as const satisfies readonly (readonly [string, string])[]

const orders = (places: readonly number[]): readonly (readonly number[])[] =>
  places.length < 2
    ? [places]
    : places.flatMap((p, i) => orders(places.filter((_, k) => k !== i)).map((rest) => [p, ...rest]))

/** The six orders of a triad, and the twenty-four of four notes in a row, as figures. */
export const ORDERS_OF_THREE: readonly string[] = orders([1, 3, 5]).map((o) => o.join(' '))
export const ORDERS_OF_FOUR: readonly string[] = orders([1, 2, 3, 4]).map((o) => o.join(' '))

export const MOST_PLACES = 16
const FURTHEST = 16
const EXPECTED = ['places such as 1 3 5', '1 2 3 5 step 1', '5 3 1 step -1', '1 -1'] as const

const wrong = (at: number, found: string): Result<Figure, TextError> =>
  fail({ code: 'bad_entry', at, found, expected: EXPECTED })

const isPlace = (word: string): boolean => /^-?\d{1,2}$/.test(word) && Number(word) !== 0 && Math.abs(+word) <= FURTHEST

/** Reads a figure as it is typed, `1 3 5` or `1 2 3 5 step 1`. An error tells where it stands. */
export const readFigure = (text: string): Result<Figure, TextError> => {
  const words = [...text.matchAll(/[^\s,]+/g)].map((m) => ({ word: m[0], at: m.index }))
  const stepAt = words.findIndex(({ word }) => word.toLowerCase() === 'step')
  const places = stepAt < 0 ? words : words.slice(0, stepAt)
  const bad = places.find(({ word }, i) => !isPlace(word) || i >= MOST_PLACES)
  if (bad) return wrong(bad.at, bad.word)
  if (places.length === 0) return wrong(words[0]?.at ?? text.length, words[0]?.word ?? '')
  const after = stepAt < 0 ? [] : words.slice(stepAt + 1)
  const [by, more] = after
  if (stepAt >= 0 && (!by || !/^[+-]?\d{1,2}$/.test(by.word) || Number(by.word) === 0))
    return wrong(by?.at ?? text.length, by?.word ?? '')
  if (more) return wrong(more.at, more.word)
  const own = places.map(({ word }) => Number(word))
  return ok({ places: own, step: by ? Number(by.word) : (own.at(-1) ?? 1) < (own[0] ?? 1) && own.length > 2 ? -1 : 1 })
}

/** A figure in the words it is read in. */
export const printFigure = ({ places, step }: Figure): string => `${places.join(' ')} step ${step}`

/** How many places above the first a place stands; there is no place 0. */
export const offsetOf = (place: number): number => (place > 0 ? place - 1 : place)

const TERTIAN: Readonly<Record<number, number>> = { 1: 0, 3: 1, 5: 2, 7: 3, 8: 4, 10: 5, 12: 6 }
const TRIAD: Readonly<Record<number, number>> = { 1: 0, 3: 1, 5: 2, 8: 3, 10: 4, 12: 5 }

/**
 * A figure's places above its first note in a material of so many notes. Three or four notes in thirds are counted as a
 * player says them: 1 3 5 is the triad, 8 its octave.
 */
export const offsetsIn = ({ places }: Figure, size: number): readonly number[] => {
  const names = size === 3 ? TRIAD : size === 4 ? TERTIAN : null
  const said = places.map((p) => (p < 0 ? p : names?.[p]))
  return names && said.every((p) => p !== undefined) ? (said as readonly number[]) : places.map(offsetOf)
}
