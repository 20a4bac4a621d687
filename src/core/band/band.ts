import { beatTicks, type Chart } from '../chart/chart.ts'
import type { Feel } from '../chart/feel.ts'
import { type Midi, midi } from '../pitch/units.ts'
import { barsAt, type Span } from '../time/bars.ts'
import { type Sounding, soundingAt, type Timeline } from '../time/timeline.ts'
import { type BassBeat, bassLine } from './bass.ts'
import { compVoicing } from './comping.ts'
import { GROOVES, type Groove, hitsOf } from './groove.ts'

export const BAND_PARTS = ['bass', 'chords', 'ride', 'hat', 'drum', 'rim', 'click'] as const
export type BandPart = (typeof BAND_PARTS)[number]

/** One note of the band: ticks from the start of the chart, as written (swing comes later); loudness 0..1. */
export interface BandNote {
  readonly part: BandPart
  readonly at: number
  readonly for: number
  readonly pitch: Midi
  readonly loudness: number
}

/** The key each drum has in the General MIDI set. */
const DRUM_KEYS = { ride: midi(51), hat: midi(42), drum: midi(36), rim: midi(37), click: midi(76) } as const
const SOFT = 0.55
const LOUD = 0.85

interface Struck {
  readonly at: number
  readonly sign: string
}

/** Everything one part strikes within a span, in time. A chart that begins again takes its bars again. */
const struck = (chart: Chart, groove: Groove, part: keyof Groove['four'], span: Span): readonly Struck[] => {
  const bars = barsAt(chart)
  const form = bars.at(-1)?.to ?? 0
  const all: Struck[] = []
  for (let start = Math.floor(span.from / form) * form; form > 0 && start < span.to; start += form)
    for (const bar of bars)
      for (const { slot: n, sign } of hitsOf(groove, part, bar.metre, bar.number)) {
        const at = start + bar.grooveFrom + (n * beatTicks(bar.metre)) / 4
        const inBar = at >= start + bar.from && at < start + bar.to
        if (inBar && at >= span.from && at < span.to) all.push({ at, sign })
      }
  return all
}

/** What sounds at a moment of a span that is played round and round. */
const within = (timeline: Timeline, { from, to }: Span, at: number): Sounding | null =>
  soundingAt(timeline, at < to ? at : from + ((at - from) % (to - from)))

/** The chord after a moment: the next different sounding one within the round. */
const chordAfter = (timeline: Timeline, span: Span, s: Sounding): Sounding | null => {
  let at = s.to
  for (let n = 0; n < timeline.soundings.length; n++) {
    const next = within(timeline, span, at)
    if (!next) return null
    if (next.place) return next
    at += next.to - next.from
  }
  return null
}

const bassNotes = (chart: Chart, timeline: Timeline, groove: Groove, span: Span): readonly BandNote[] => {
  const strikes = struck(chart, groove, 'bass', span).flatMap(({ at, sign }) => {
    const s = soundingAt(timeline, at)
    return s?.place ? [{ at, sign, s, place: s.place }] : []
  })
  const begun = new Set<number>()
  const missed = timeline.soundings.length > 0 ? chordsMissed(timeline, span, strikes) : []
  const all = [...strikes, ...missed].sort((a, b) => a.at - b.at)
  const beats = all.map(({ sign, s, place }, i): BassBeat => {
    const first = !begun.has(s.from)
    begun.add(s.from)
    const last = all[i + 1]?.s.from !== s.from
    const next = chordAfter(timeline, span, s)
    const stays = next?.place?.chord.symbol === place.chord.symbol
    const held = all[i - 1]?.place.chord.symbol === place.chord.symbol
    return {
      want: first && !held && sign !== '1' ? '1' : sign,
      place,
      next: next?.place?.chord ?? null,
      first: first && !held,
      last: last && !stays,
    }
  })
  const line = bassLine(beats)
  return all.map(({ at, s }, i) => {
    const until = Math.min(all[i + 1]?.at ?? span.to, s.to)
    return {
      part: 'bass',
      at,
      for: (until - at) * 0.95,
      pitch: line[i] ?? midi(40),
      loudness: at === s.from ? LOUD : 0.7,
    }
  })
}

/** Chords that begin where the groove has nothing for the bass: their roots are played all the same. */
const chordsMissed = (timeline: Timeline, span: Span, strikes: readonly { readonly at: number }[]) => {
  const struckAt = new Set(strikes.map((b) => b.at))
  const rounds = Math.ceil(span.to / timeline.length)
  return Array.from({ length: rounds }, (_, k) => k * timeline.length).flatMap((start) =>
    timeline.soundings.flatMap((s) => {
      const at = s.from + start
      const isMissed = s.place && at >= span.from && at < span.to && !struckAt.has(at)
      return isMissed && s.place ? [{ at, sign: '1', s: { ...s, from: at, to: s.to + start }, place: s.place }] : []
    }),
  )
}

const SHORT = 0.45

const chordNotes = (chart: Chart, timeline: Timeline, groove: Groove, span: Span): readonly BandNote[] => {
  const strikes = struck(chart, groove, 'chords', span)
  let before: readonly Midi[] = []
  return strikes.flatMap(({ at, sign }, i) => {
    const s = soundingAt(timeline, at)
    if (!s) return []
    const ahead = sign === 'n' ? chordAfter(timeline, span, s) : null
    const chord = (ahead ?? s).place?.chord
    if (!chord) return []
    before = compVoicing(chord, before)
    const until = Math.min(strikes[i + 1]?.at ?? span.to, ahead ? Math.max(s.to, at) + timeline.beat : s.to, span.to)
    const length = groove.held ? (until - at) * 0.95 : Math.min((until - at) * 0.95, timeline.beat * SHORT)
    return before.map((pitch): BandNote => ({ part: 'chords', at, for: length, pitch, loudness: SOFT }))
  })
}

const drumNotes = (chart: Chart, groove: Groove, span: Span): readonly BandNote[] => {
  const beat = beatTicks(chart.metre)
  return (['ride', 'hat', 'drum', 'rim'] as const).flatMap((part) =>
    struck(chart, groove, part, span).map(
      ({ at, sign }): BandNote => ({
        part,
        at,
        for: beat / 4,
        pitch: DRUM_KEYS[part],
        loudness: sign === 'X' ? LOUD : SOFT,
      }),
    ),
  )
}

/** A click on every beat, louder on the first of the bar. */
const clicks = (chart: Chart, span: Span): readonly BandNote[] => {
  const bars = barsAt(chart)
  const form = bars.at(-1)?.to ?? 0
  const all: BandNote[] = []
  for (let start = Math.floor(span.from / form) * form; form > 0 && start < span.to; start += form)
    for (const bar of bars) {
      const beat = beatTicks(bar.metre)
      for (let at = bar.from; at < bar.to; at += beat)
        if (start + at >= span.from && start + at < span.to)
          all.push({
            part: 'click',
            at: start + at,
            for: beat / 8,
            pitch: DRUM_KEYS.click,
            loudness: at === bar.from ? LOUD : SOFT,
          })
    }
  return all
}

/**
 * A modest band over a chart: bass, chords on guide tones, cymbals and drums as the feel has them, and a click. The span
 * is played round and round, so its last chord leads to its first. Times as written; `swungAt` makes them swing.
 */
export const bandOver = (chart: Chart, timeline: Timeline, feel: Feel, span: Span): readonly BandNote[] => {
  const groove = GROOVES[feel]
  return [
    ...bassNotes(chart, timeline, groove, span),
    ...chordNotes(chart, timeline, groove, span),
    ...drumNotes(chart, groove, span),
    ...clicks(chart, span),
  ].sort((a, b) => a.at - b.at)
}
