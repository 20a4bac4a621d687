/** What an instrument can play: `up` semitones its written page stands above what sounds, lowest and highest written MIDI note. */
export interface Compass {
  readonly id: string
  readonly name: string
  readonly up: number
  readonly low: number
  readonly high: number
  /** The highest written note under the break; null where there is none to speak of. */
  readonly under: number | null
  /** Whether it is blown: then a line needs places to breathe. */
  readonly blown: boolean
}

/** One row: [id, name, semitones up, lowest, highest, under the break, blown]. Source: the usual written compass of each. */
const ROWS = [
  ['flute', 'flute', 0, 60, 96, 73, true],
  ['clarinet', 'clarinet', 2, 52, 91, 70, true],
  ['soprano', 'soprano saxophone', 2, 58, 90, 73, true],
  ['alto', 'alto saxophone', 9, 58, 90, 73, true],
  ['tenor', 'tenor saxophone', 14, 58, 90, 73, true],
  ['baritone', 'baritone saxophone', 21, 57, 90, 73, true],
  ['trumpet', 'trumpet', 2, 54, 84, null, true],
  ['horn', 'horn', 7, 48, 84, null, true],
  ['trombone', 'trombone', 0, 40, 70, null, true],
  ['guitar', 'guitar', 12, 52, 88, null, false],
  ['bass', 'bass', 12, 40, 67, null, false],
  ['piano', 'piano', 0, 48, 96, null, false],
] as const

export const COMPASSES: readonly Compass[] = ROWS.map(([id, name, up, low, high, under, blown]) => ({
  ...{ id, name, up, low, high, under, blown },
}))
export const COMPASS_IDS = ROWS.map(([id]) => id)
export type CompassId = (typeof ROWS)[number][0]
export const compass = (id: string): Compass | null => COMPASSES.find((c) => c.id === id) ?? null
