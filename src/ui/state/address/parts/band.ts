import { FEELS, type Feel } from '../../../../core/index.ts'
import { type Codec, partOf } from '../codec.ts'

/** From a bar to a bar, both included, by their numbers. */
export interface Bars {
  readonly from: number
  readonly to: number
}

export const TEMPO = { least: 30, most: 320 } as const

const loop: Codec<Bars | null> = {
  first: null,
  read: (t) => {
    const [, from, to] = /^(\d{1,4})-(\d{1,4})$/.exec(t) ?? []
    return from !== undefined && Number(from) <= Number(to) ? { from: Number(from), to: Number(to) } : null
  },
  write: (bars) => (bars ? `${bars.from}-${bars.to}` : ''),
}
const tempo: Codec<number | null> = {
  first: null,
  read: (t) => {
    const n = Math.round(Number(t))
    return n >= TEMPO.least && n <= TEMPO.most ? n : null
  },
  write: String,
}
const feel: Codec<Feel | null> = {
  first: null,
  read: (t) => FEELS.find((f) => f === t) ?? null,
  write: (f) => f ?? '',
}

/** The bars that are played round and round (null: all), and how the band plays where it is not as the chart says. */
export interface BandPart {
  readonly loop: Bars | null
  readonly tempo: number | null
  readonly feel: Feel | null
}
export const BAND = partOf<BandPart>({ loop, tempo, feel })
