import {
  type BandPart,
  bandOver,
  beatsOfBars,
  type Chart,
  type Feel,
  type LineNote,
  type Midi,
  type Span,
  type Swing,
  swungNotes,
  type Timeline,
} from '../core/index.ts'

/** What can be turned up and down: the line, and the band in four. */
export const CHANNELS = ['line', 'bass', 'chords', 'drums', 'click'] as const
export type Channel = (typeof CHANNELS)[number]
export type ScorePart = BandPart | 'line'

/** One note as it is played: ticks from the start of the chart, 960 a quarter; loudness 0..1. */
export interface ScoreNote {
  readonly part: ScorePart
  readonly at: number
  readonly for: number
  readonly pitch: Midi
  readonly loudness: number
}

/** All that is played, round and round within a span. `beat` in ticks, `tempo` in beats a minute. */
export interface Score {
  readonly notes: readonly ScoreNote[]
  readonly span: Span
  readonly beat: number
  readonly beatsInBar: number
  readonly tempo: number
}

export interface ScoreAsked {
  readonly chart: Chart
  readonly timeline: Timeline
  readonly feel: Feel
  readonly swing: Swing
  readonly tempo: number
  readonly span: Span
  readonly line: readonly LineNote[]
}

const LINE_LOUDNESS = 0.8

/** The band and a line over a span of a chart, swung. A note over the end of the span is cut there. */
export const scoreOf = ({ chart, timeline, feel, swing, tempo, span, line }: ScoreAsked): Score => {
  const sung = line
    .filter((n) => n.at >= span.from && n.at < span.to)
    .map((n, i, all): ScoreNote => {
      const until = Math.min(n.at + n.for, all[i + 1]?.at ?? span.to, span.to)
      return { part: 'line', at: n.at, for: until - n.at, pitch: n.pitch, loudness: LINE_LOUDNESS }
    })
  const band: readonly ScoreNote[] = bandOver(chart, timeline, feel, span)
  const notes = swungNotes([...band, ...sung], beatsOfBars(timeline), swing)
  return {
    notes: [...notes].sort((a, b) => a.at - b.at),
    span,
    beat: timeline.beat,
    beatsInBar: timeline.beatsInBar,
    tempo,
  }
}

/** Seconds of one tick. */
export const secondsPerTick = ({ beat, tempo }: Pick<Score, 'beat' | 'tempo'>): number => 60 / (tempo * beat)

/** Seconds a score lasts once round. */
export const secondsOf = (score: Score): number => (score.span.to - score.span.from) * secondsPerTick(score)

/** How loud each channel is, 0..1; a muted one, and any other than a soloed one, is silent. */
export interface Mix {
  readonly levels: Readonly<Record<Channel, number>>
  readonly muted: readonly Channel[]
  readonly solo: readonly Channel[]
}

export const loudnessOf = ({ levels, muted, solo }: Mix, channel: Channel): number =>
  muted.includes(channel) || (solo.length > 0 && !solo.includes(channel)) ? 0 : levels[channel]
