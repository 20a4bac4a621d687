import type { HeardNote } from '../line/heard.ts'
import { endOf } from '../line/line.ts'
import type { OutsideStretch } from '../line/outside.ts'
import { listed } from '../reading/sentence.ts'
import { soundingAt, type Timeline } from '../time/timeline.ts'
import { figuresOf } from './figures.ts'
import type { Kept, KeptBorder, KeptStay, MissedBorder } from './keeping.ts'
import type { TakeFindings } from './read-take.ts'
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

const MOST_SENTENCES = 5

const barAt = (at: number, timeline: Timeline): number => soundingAt(timeline, Math.max(0, at))?.spot.spot.bar ?? 0
const barsOf = (from: number, to: number, timeline: Timeline): readonly [number, number] => [
  barAt(from, timeline),
  barAt(Math.max(from, to - 1), timeline),
]
const inBars = ([first, last]: readonly [number, number]): string =>
  first === last ? `bar ${first}` : `bars ${first}-${last}`
const In = (bars: readonly [number, number]): string => `In ${inBars(bars)}`
const beatsIn = (ticks: number, { beat }: Timeline): string => {
  const count = Math.round((Math.abs(ticks) / beat) * 2) / 2
  return count === 1 ? 'a beat' : `${count} beats`
}
const said = (n: HeardNote): string => `${n.name.name}, the ${n.degree} of ${n.sounding?.spot.spot.chord.symbol ?? ''}`
const laidIn = ({ overlay }: Stay): string => overlay?.name ?? 'the home scale'
const percent = (share: number): number => Math.round(share * 100)
/** ` Also in bars 9 and 17.` */
const also = (bars: readonly number[]): string => {
  const others = [...new Set(bars)]
  return others.length === 0
    ? ''
    : ` Also in ${others.length === 1 ? 'bar' : 'bars'} ${listed(others.slice(0, 6).map(String))}.`
}

type Told = Omit<TakeSentence, 'bars'> & { readonly weight: number }

/** Of several of one kind the gravest is told, and where the others are. */
const gravest = <T>(
  all: readonly T[],
  gravity: (one: T) => number,
  place: (one: T) => number,
  tell: (one: T) => Omit<Told, 'weight'>,
  timeline: Timeline,
): readonly Told[] => {
  const [first, ...rest] = [...all].sort((a, b) => gravity(b) - gravity(a))
  if (first === undefined) return []
  const told = tell(first)
  const others = rest.map(place).sort((a, b) => a - b)
  return [
    {
      ...told,
      text: told.text + also(others.map((at) => barAt(at, timeline))),
      weight: gravity(first) + rest.length / 10,
    },
  ]
}

const lengthOf = ({ stay }: Kept): number => stay.to - stay.from
const staysKept = (kept: readonly Kept[], kind: KeptStay['kind']): readonly KeptStay[] =>
  kept.filter((k): k is KeptStay => k.kind === kind)
const borders = (kept: readonly Kept[], kind: MissedBorder['kind']): readonly MissedBorder[] =>
  kept.filter((k): k is MissedBorder => k.kind === kind)
const landings = (kept: readonly Kept[], kind: KeptBorder['kind']): readonly KeptBorder[] =>
  kept.filter((k): k is KeptBorder => k.kind === kind)

const onPlan = ({ kept, audit: { timeline } }: TakeFindings): readonly Told[] => {
  const beats = (ticks: number): number => ticks / timeline.beat
  const tells = {
    overstay: (k: MissedBorder): Omit<Told, 'weight'> => ({
      text: `You were to be home in bar ${barAt(k.stay.to, timeline)} and stayed on ${laidIn(k.stay)} for ${beatsIn(k.late, timeline)} more.`,
      ...{ tone: 'fault', about: 'overstay', from: k.stay.to, to: k.stay.to + k.late },
    }),
    late: (k: MissedBorder): Omit<Told, 'weight'> => ({
      text: `The way home into bar ${barAt(k.stay.to, timeline)} is late by ${beatsIn(k.late, timeline)}.`,
      ...{ tone: 'fault', about: 'late landing', from: k.stay.to - timeline.beat, to: k.stay.to + k.late },
    }),
    early: (k: MissedBorder): Omit<Told, 'weight'> => ({
      text: `You were home ${beatsIn(k.late, timeline)} before bar ${barAt(k.stay.to, timeline)}: ${laidIn(k.stay)} was to last until there.`,
      ...{ tone: 'fault', about: 'early landing', from: k.stay.to + k.late, to: k.stay.to },
    }),
    inside: (k: Kept): Omit<Told, 'weight'> => ({
      text: `${In(barsOf(k.stay.from, k.stay.to, timeline))} ${laidIn(k.stay)} was to lead outside, and you stayed in the home scale.`,
      ...{ tone: 'fault', about: 'inside', from: k.stay.from, to: k.stay.to },
    }),
    missed: (k: Kept): Omit<Told, 'weight'> => ({
      text: `${In(barsOf(k.stay.from, k.stay.to, timeline))} ${laidIn(k.stay)} was planned; most of what you played there is neither that nor home.`,
      ...{ tone: 'fault', about: 'missed step', from: k.stay.from, to: k.stay.to },
    }),
  }
  const late = (k: { readonly late: number }): number => Math.abs(beats(k.late))
  const at = (k: Kept): number => k.stay.to
  return [
    ...gravest(borders(kept, 'overstay'), (k) => 10 + late(k), at, tells.overstay, timeline),
    ...gravest(
      staysKept(kept, 'missed step'),
      (k) => 6 + beats(lengthOf(k)) / 4,
      (k) => k.stay.from,
      tells.missed,
      timeline,
    ),
    ...gravest(
      staysKept(kept, 'inside'),
      (k) => 5 + beats(lengthOf(k)) / 4,
      (k) => k.stay.from,
      tells.inside,
      timeline,
    ),
    ...gravest(borders(kept, 'late landing'), (k) => 4 + late(k), at, tells.late, timeline),
    ...gravest(borders(kept, 'early landing'), (k) => 3 + late(k), at, tells.early, timeline),
  ]
}

const onLandings = ({
  kept,
  unanswered,
  tooLong,
  silences,
  audit: { notes, timeline },
}: TakeFindings): readonly Told[] => {
  const begin = (s: OutsideStretch): number => (notes[s.from] as HeardNote).at
  const end = (s: OutsideStretch): number => endOf(notes[s.to] as HeardNote)
  const tellNone = (s: OutsideStretch): Omit<Told, 'weight'> => {
    const [bars, on] = [barsOf(begin(s), end(s), timeline), s.landing && notes[s.landing.on]]
    const text = on
      ? `${In(bars)} you leave ${said(notes[s.to] as HeardNote)} by a leap to ${on.name.name}: no step leads home.`
      : `${In(bars)} you go outside and nothing answers ${said(notes[s.to] as HeardNote)}.`
    return { text, tone: 'fault', about: 'no landing', from: begin(s), to: end(s) }
  }
  const tellLong = (s: OutsideStretch): Omit<Told, 'weight'> => ({
    text: `From bar ${barAt(begin(s), timeline)} on you are outside for ${beatsIn(end(s) - begin(s), timeline)}: longer than an ear waits.`,
    ...{ tone: 'fault', about: 'overstay', from: begin(s), to: end(s) },
  })
  // What a long rest leaves open is told by the rest.
  const intoSilence = (s: OutsideStretch): boolean =>
    silences.some((r) => r.from >= begin(s) && r.from <= end(s) + timeline.beat)
  const none = [...landings(kept, 'no landing').map((k) => k.stretch), ...unanswered].filter((s) => !intoSilence(s))
  return [
    ...gravest(none, (s) => 8 + s.peak / 100 + (s.landing ? -3 : 0), begin, tellNone, timeline),
    ...gravest(tooLong, (s) => 10 + (end(s) - begin(s)) / timeline.beat / 16, begin, tellLong, timeline),
  ]
}

const onNotes = (found: TakeFindings): readonly Told[] => {
  const { resting, silences, device, audit, time } = found
  const { notes, timeline } = audit
  const bar = timeline.beat * timeline.beatsInBar
  const at = (i: number): HeardNote => notes[i] as HeardNote
  const tellRest = (i: number): Omit<Told, 'weight'> => ({
    text: `In bar ${at(i).bar} ${said(at(i))} rests for ${beatsIn(at(i).for, timeline)}: it may pass, not rest.`,
    ...{ tone: 'fault', about: 'resting suspension', from: at(i).at, to: endOf(at(i)) },
  })
  const tellSilence = (s: { readonly from: number; readonly to: number }): Omit<Told, 'weight'> => {
    const bars = Math.round((s.to - s.from) / bar)
    return {
      text: `${In(barsOf(s.from + timeline.beat, s.to - timeline.beat / 2, timeline))} nothing was played for ${bars <= 1 ? 'a bar' : `${bars} bars`}.`,
      ...{ tone: 'fault', about: 'silence', from: s.from, to: s.to },
    }
  }
  const oneDevice: readonly Told[] = device
    ? [
        {
          text: `One device carries it: ${device.overlay.name} over ${device.chord}, and the same over ${device.times} of ${device.of} chords.`,
          ...{ tone: 'fault', about: 'one device', weight: 7 },
          ...{ from: device.notes[0]?.at ?? 0, to: endOf(device.notes.at(-1) as HeardNote) },
        },
      ]
    : []
  const timing: readonly Told[] = time.fault
    ? [
        {
          text: TIME_WORDS[time.fault.about](Math.round(Math.abs(time.fault.ms))),
          ...{ tone: 'fault', about: time.fault.about, weight: 4 + Math.abs(time.fault.ms) / 30 },
          ...{ from: time.fault.from, to: time.fault.to },
        },
      ]
    : []
  return [
    ...gravest(
      resting,
      (i) => 2 + at(i).for / timeline.beat / 2,
      (i) => at(i).at,
      tellRest,
      timeline,
    ),
    ...gravest(
      silences,
      (s) => 3 + (s.to - s.from) / bar / 2,
      (s) => s.from,
      tellSilence,
      timeline,
    ),
    ...oneDevice,
    ...timing,
  ]
}

const TIME_WORDS = {
  rushing: (ms: number) => `You are ahead of the beat by ${ms} ms on average.`,
  dragging: (ms: number) => `You are behind the beat by ${ms} ms on average.`,
  uneven: (ms: number) => `The eighths are uneven: they stray from the beat by ${ms} ms.`,
} as const

/** Fewer semitones between the lowest and the highest note of so many are narrow. */
const NARROW = { semitones: 7, notes: 24 } as const

const onRange = ({ audit: { notes } }: TakeFindings): readonly Told[] => {
  if (notes.length < NARROW.notes) return []
  const pitches = notes.map((n) => n.pitch)
  const [low, high] = [Math.min(...pitches), Math.max(...pitches)]
  if (high - low >= NARROW.semitones) return []
  const name = (pitch: number): string => notes.find((n) => n.pitch === pitch)?.name.name ?? ''
  const [first, last] = [notes[0] as HeardNote, notes.at(-1) as HeardNote]
  const text = `All of it lies between ${name(low)} and ${name(high)}, within ${high - low} half steps.`
  return [{ text, tone: 'plain', about: 'range', weight: 1, from: first.at, to: endOf(last) }]
}

const GOOD_SHARE = 0.8

const goodOnPlan = (found: TakeFindings): readonly Told[] => {
  const {
    kept,
    steps,
    audit: { notes, timeline },
  } = found
  const { kept: share } = figuresOf(found)
  const landed = landings(kept, 'landed').map((k): Told => {
    const on = k.stretch.landing && (notes[k.stretch.landing.on] as HeardNote)
    const how = k.stretch.landing?.how
    const by = how === 'enclosure' ? 'an enclosure' : how === 'held' ? 'a held note' : `a ${how}`
    return {
      text: on
        ? `${laidIn(k.stay)} comes home in time, by ${by} to ${said(on)}, in bar ${on.bar}.`
        : `${laidIn(k.stay)} comes home in time, into bar ${barAt(k.stay.to, timeline)}.`,
      ...{ tone: 'good', about: 'landed', weight: 1 + k.stretch.peak / 100 },
      ...{ from: (notes[k.stretch.from] as HeardNote).at, to: on ? endOf(on) : k.stay.to },
    }
  })
  const whole: readonly Told[] =
    share !== null && share >= GOOD_SHARE
      ? [
          {
            text: `The plan was kept: ${percent(share)} % of what you played lies in what was laid.`,
            ...{ tone: 'good', about: 'kept', weight: 1 + share },
            ...{ from: steps[0]?.from ?? 0, to: steps.at(-1)?.to ?? 0 },
          },
        ]
      : []
  const best = landed.sort((a, b) => b.weight - a.weight)[0]
  return [...whole, ...(best ? [best] : [])]
}

/** What is good where no plan was kept: a way home, the time, a planned step, at last the bar that sits best. */
const goodByItself = (found: TakeFindings): Told => {
  const { audit, time, kept } = found
  const { notes, timeline, stretches } = audit
  const [first, last] = [notes[0] as HeardNote, notes.at(-1) as HeardNote]
  const home = stretches.find((s) => s.landing && s.landing.how !== 'cut')
  if (home?.landing) {
    const on = notes[home.landing.on] as HeardNote
    const text = `In bar ${on.bar} you come home to ${said(on)}.`
    const from = (notes[home.from] as HeardNote).at
    return { text, tone: 'good', about: 'landed', weight: 0, from, to: endOf(on) }
  }
  const best = [...staysKept(kept, 'kept')].sort((a, b) => lengthOf(b) - lengthOf(a))[0]
  if (best) {
    const text = `${In(barsOf(best.stay.from, best.stay.to, timeline))} you kept to ${laidIn(best.stay)}.`
    return { text, tone: 'good', about: 'kept', weight: 0, from: best.stay.from, to: best.stay.to }
  }
  if (!time.fault && notes.length >= 8) {
    const text = `The time is kept: ${Math.round(time.spread)} ms about the beat.`
    return { text, tone: 'good', about: 'kept', weight: 0, from: first.at, to: endOf(last) }
  }
  const resting = notes.find((n) => n.strong && n.role === 'chord') ?? notes.find((n) => n.role === 'chord')
  const text = resting
    ? `In bar ${resting.bar} ${said(resting)}, says the chord.`
    : `You played ${notes.length} notes; the next take has something to begin from.`
  const on = resting ?? first
  return { text, tone: 'good', about: 'kept', weight: 0, from: on.at, to: endOf(on) }
}

/** At most five sentences, the gravest first, and always something that was good. Source: practice page. */
export const takeSentences = (found: TakeFindings): readonly TakeSentence[] => {
  const { notes, timeline } = found.audit
  if (notes.length === 0)
    return [{ text: 'Nothing was played.', bars: [0, 0], tone: 'fault', about: 'silence', from: 0, to: 0 }]
  const plan = onPlan(found)
  // One device laid over everything is why steps were missed: it is told once.
  const told = found.device ? plan.filter((t) => t.about !== 'missed step' && t.about !== 'inside') : plan
  const faults = [...told, ...onLandings(found), ...onNotes(found)].sort((a, b) => b.weight - a.weight)
  const good = goodOnPlan(found)
  const goods = good.length > 0 ? good : [goodByItself(found)]
  const chosen = [...faults.slice(0, MOST_SENTENCES - 1), ...goods, ...onRange(found)].slice(0, MOST_SENTENCES)
  return chosen.map(({ weight: _, ...t }) => ({ ...t, bars: barsOf(t.from, t.to, timeline) }))
}
