import type { HeardNote } from '../line/heard.ts'
import { endOf } from '../line/line.ts'
import type { OutsideStretch } from '../line/outside.ts'
import { goodIn } from './good.ts'
import type { Kept, MissedBorder } from './keeping.ts'
import type { TakeFindings } from './read-take.ts'
import {
  barAt,
  barsOf,
  beatsIn,
  borders,
  gravest,
  In,
  laidIn,
  landings,
  lengthOf,
  said,
  staysKept,
  type TakeSentence,
  type Told,
} from './take-words.ts'

const MOST_SENTENCES = 5

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

/** At most five sentences, the gravest first, and always something that was good. Source: practice page. */
export const takeSentences = (found: TakeFindings): readonly TakeSentence[] => {
  const { notes, timeline } = found.audit
  if (notes.length === 0)
    return [{ text: 'Nothing was played.', bars: [0, 0], tone: 'fault', about: 'silence', from: 0, to: 0 }]
  const plan = onPlan(found)
  // One device laid over everything is why steps were missed: it is told once.
  const told = found.device ? plan.filter((t) => t.about !== 'missed step' && t.about !== 'inside') : plan
  const faults = [...told, ...onLandings(found), ...onNotes(found)].sort((a, b) => b.weight - a.weight)
  const chosen = [...faults.slice(0, MOST_SENTENCES - 1), ...goodIn(found), ...onRange(found)].slice(0, MOST_SENTENCES)
  return chosen.map(({ weight: _, ...t }) => ({ ...t, bars: barsOf(t.from, t.to, timeline) }))
}
