import { type Interval, UNISON } from './transpose.ts'

/** What a player reads: `written` is the interval from concert pitch up to the written page. */
export interface Instrument {
  readonly id: string
  readonly name: string
  readonly short: string
  readonly badge: string
  readonly written: Interval
}

export const INSTRUMENTS = [
  {
    id: 'concert',
    name: 'Concert (piano, guitar, bass, flute)',
    short: 'Concert',
    badge: 'concert pitch',
    written: UNISON,
  },
  {
    id: 'bb',
    name: 'B♭ (trumpet, tenor, soprano, clarinet)',
    short: 'B♭',
    badge: 'written for B♭',
    written: { letters: 1, semitones: 2 },
  },
  {
    id: 'eb',
    name: 'E♭ (alto, baritone)',
    short: 'E♭',
    badge: 'written for E♭',
    written: { letters: 5, semitones: 9 },
  },
  { id: 'f', name: 'F (horn)', short: 'F', badge: 'written for F', written: { letters: 4, semitones: 7 } },
] as const satisfies readonly Instrument[]

export type InstrumentId = (typeof INSTRUMENTS)[number]['id']
export const instrument = (id: string): Instrument => INSTRUMENTS.find((i) => i.id === id) ?? INSTRUMENTS[0]
