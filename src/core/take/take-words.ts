import type { HeardNote } from '../line/heard.ts'
import { listed } from '../reading/sentence.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import type { Kept, KeptBorder, KeptStay, MissedBorder } from './keeping.ts'
import type { Stay } from './stays.ts'

export const TAKE_ABOUTS = [
  ...(['overstay', 'no landing', 'missed step', 'inside', 'late landing', 'early landing', 'one device'] as const),
  ...(['resting suspension', 'silence', 'rushing', 'dragging', 'uneven', 'range', 'kept', 'landed'] as const),
] as const
export type TakeAbout = (typeof TAKE_ABOUTS)[number]

/** A sentence about a take, ASCII, and the bars it points at, first and last, as the chart counts them. */
export interface TakeSentence {
  readonly text: string
  readonly bars: readonly [number, number]
  readonly tone: 'good' | 'plain' | 'fault'
  readonly about: TakeAbout
  /** Where it is heard, in ticks of the take. */
  readonly from: number
  readonly to: number
}

export const barAt = (at: number, timeline: Timeline): number =>
  soundingAt(timeline, Math.max(0, at))?.spot.spot.bar ?? 0
export const barsOf = (from: number, to: number, timeline: Timeline): readonly [number, number] => [
  barAt(from, timeline),
  barAt(Math.max(from, to - 1), timeline),
]
const inBars = ([first, last]: readonly [number, number]): string =>
  first === last ? `bar ${first}` : `bars ${first}-${last}`
export const In = (bars: readonly [number, number]): string => `In ${inBars(bars)}`
export const beatsIn = (ticks: number, { beat }: Timeline): string => {
  const count = Math.round((Math.abs(ticks) / beat) * 2) / 2
  return count === 1 ? 'a beat' : `${count} beats`
}
export const said = (n: HeardNote): string =>
  `${n.name.name}, the ${n.degree} of ${n.sounding?.spot.spot.chord.symbol ?? ''}`
export const laidIn = ({ overlay }: Stay): string => overlay?.name ?? 'the home scale'
export const percent = (share: number): number => Math.round(share * 100)
/** ` Also in bars 9 and 17.`, of those that are not the bar itself. */
const also = (own: number, bars: readonly number[]): string => {
  const others = [...new Set(bars)].filter((bar) => bar !== own).sort((a, b) => a - b)
  return others.length === 0
    ? ''
    : ` Also in ${others.length === 1 ? 'bar' : 'bars'} ${listed(others.slice(0, 6).map(String))}.`
}

export type Told = Omit<TakeSentence, 'bars'> & { readonly weight: number }

/** Of several of one kind the gravest is told, and where the others are. */
export const gravest = <T>(
  all: readonly T[],
  gravity: (one: T) => number,
  place: (one: T) => number,
  tell: (one: T) => Omit<Told, 'weight'>,
  timeline: Timeline,
): readonly Told[] => {
  const [first, ...rest] = [...all].sort((a, b) => gravity(b) - gravity(a))
  if (first === undefined) return []
  const told = tell(first)
  const barOf = (one: T): number => barAt(place(one), timeline)
  return [
    {
      ...told,
      text: told.text + also(barOf(first), rest.map(barOf)),
      weight: gravity(first) + rest.length / 10,
    },
  ]
}

export const lengthOf = ({ stay }: Kept): number => stay.to - stay.from
export const staysKept = (kept: readonly Kept[], kind: KeptStay['kind']): readonly KeptStay[] =>
  kept.filter((k): k is KeptStay => k.kind === kind)
export const borders = (kept: readonly Kept[], kind: MissedBorder['kind']): readonly MissedBorder[] =>
  kept.filter((k): k is MissedBorder => k.kind === kind)
export const landings = (kept: readonly Kept[], kind: KeptBorder['kind']): readonly KeptBorder[] =>
  kept.filter((k): k is KeptBorder => k.kind === kind)
