import { TICKS_PER_QUARTER } from '../pitch/units.ts'

/** Note values a line runs in, in ticks; `t` three in the time of two, `.` dotted. */
export const VALUES = {
  '1/4': TICKS_PER_QUARTER,
  '1/8': TICKS_PER_QUARTER / 2,
  '1/16': TICKS_PER_QUARTER / 4,
  '1/4t': (TICKS_PER_QUARTER * 2) / 3,
  '1/8t': TICKS_PER_QUARTER / 3,
  '1/16t': TICKS_PER_QUARTER / 6,
  '1/4.': (TICKS_PER_QUARTER * 3) / 2,
  '1/8.': (TICKS_PER_QUARTER * 3) / 4,
} as const
export type ValueName = keyof typeof VALUES
export const VALUE_NAMES = Object.keys(VALUES) as readonly ValueName[]

/** How groups fall in time: `start` a beat counted from 1, before the bar where it is less; `rest` a cycle of notes played and left out. */
export interface Rhythm {
  readonly value: ValueName
  readonly start: number
  readonly rest: { readonly play: number; readonly rest: number } | null
}

/** `play 5 rest 1`; null where it does not read. */
export const readRest = (text: string): Rhythm['rest'] => {
  const [, play, rest] = /^\s*play\s+(\d{1,2})\s+rest\s+(\d{1,2})\s*$/i.exec(text) ?? []
  return play && rest && Number(play) > 0 ? { play: Number(play), rest: Number(rest) } : null
}

/** Tuplets stay whole: their line begins at one of their own places in the beat. */
export const startTicks = ({ value, start }: Rhythm, beat: number): number => {
  const [at, length] = [(start - 1) * beat, VALUES[value]]
  const places = value.endsWith('t') ? length : 1
  return Math.round(Math.round(at / places) * places)
}

/** The moments a line has notes at, from one tick up to another. */
export const momentsOf = (rhythm: Rhythm, from: number, to: number): readonly number[] => {
  const { rest, value } = rhythm
  const length = VALUES[value]
  const cycle = rest ? rest.play + rest.rest : 1
  const all: number[] = []
  for (let i = 0, at = from; at < to; i++, at = from + i * length) if (!rest || i % cycle < rest.play) all.push(at)
  return all
}

/** After how many beats groups of so many notes of a value begin on a beat again. */
export const meetsAfter = (group: number, value: ValueName, beat: number): number => {
  const length = group * VALUES[value]
  let meets = length
  while (meets % beat !== 0) meets += length
  return meets / beat
}
