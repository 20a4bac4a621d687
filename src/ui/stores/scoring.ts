import {
  analyseChart,
  barsAt,
  type Chart,
  feelOf,
  type LineNote,
  type Overlay,
  type RunStep,
  readChart,
  readOverrides,
  rotate,
  runThrough,
  type Span,
  spanOfBars,
  splitChart,
  swingOf,
  type Timeline,
  timelineOf,
} from '../../core/index.ts'
import { type Score, scoreOf } from '../../sound/score.ts'
import type { Desk } from './desk.ts'
import type { Kept } from './kept.ts'
import { $lineNotes, $lines, notesOf, sounded } from './lines.ts'
import type { Bars, Place } from './place.ts'
import { settingsFrom } from './settings.ts'
import { inView } from './steering.ts'

/** What is played with the band: a kept line, the overlays that are laid over the chart, or the steps of the route in view. */
export type Source =
  | { readonly kind: 'line'; readonly id: string }
  | { readonly kind: 'laid' }
  | { readonly kind: 'route'; readonly steps: readonly RunStep[] }

/** A chart in time, in concert pitch. */
export interface Tune {
  readonly chart: Chart
  readonly timeline: Timeline
}

const EIGHTHS_IN_BEAT = 2

/** The open chart (or the sketch) as the band reads it; null where there is none that reads. */
export const tuneOf = (place: Place, kept: Kept): Tune | null => {
  const text = place.sketch ?? kept.chart?.text ?? null
  const read = text === null ? null : readChart(text)
  if (!read?.ok) return null
  const said = readOverrides(place.sketch === null ? (kept.chart?.overrides ?? null) : null)
  const chart = splitChart(read.value, said)
  const { school } = settingsFrom(kept.settings)
  return { chart, timeline: timelineOf(chart, analyseChart(chart, true, said), said, school) }
}

const step = (from: number, to: number, overlay: Overlay, down: number): RunStep => ({
  from,
  to,
  set: rotate(overlay.set, (12 - (down % 12)) % 12),
})

/** The overlays laid over a chart's chords as runs of eighths; chords that have only their home scale rest. */
const laidRuns = ({ spots, instrument }: Desk): readonly RunStep[] => {
  let at = 0
  return spots.flatMap((s) => {
    const from = at
    at += s.spot.length
    const laid = s.reading && s.by !== 'home'
    return laid ? [step(from, at, s.reading.overlay, instrument.written.semitones)] : []
  })
}

/** The steps of the route in view as runs, by their bars and beats. */
export const routeRuns = (tune: Tune, desk: Desk): readonly RunStep[] => {
  const bars = barsAt(tune.chart)
  const { beat } = tune.timeline
  return (inView()?.steps ?? []).flatMap(({ slot, overlay }) => {
    const bar = bars.find((b) => b.number === slot.bar)
    const from = bar && bar.from + (slot.beat - 1) * beat
    return overlay && from !== undefined
      ? [step(from, from + slot.beats * beat, overlay, desk.instrument.written.semitones)]
      : []
  })
}

const lineOfSource = (source: Source, tune: Tune, desk: Desk): readonly LineNote[] => {
  const each = tune.timeline.beat / EIGHTHS_IN_BEAT
  if (source.kind === 'laid') return runThrough(laidRuns(desk), each)
  if (source.kind === 'route') return runThrough(source.steps, each)
  const row = ($lines.get() ?? []).find((r) => r.id === source.id)
  return sounded((row && notesOf(row, $lineNotes.get())) ?? [])
}

/** The bars a line lies over, from its first note to its last, in whole bars; more than one chorus where it is longer. */
const spanOfLine = ({ chart, timeline }: Tune, line: readonly LineNote[]): Span | null => {
  const [first, last] = [line[0], line.at(-1)]
  if (!first || !last || timeline.length === 0) return null
  const bars = barsAt(chart)
  const barAt = (at: number) => {
    const chorus = Math.floor(at / timeline.length) * timeline.length
    const bar = bars.find((b) => at - chorus < b.to) ?? bars.at(-1)
    return { from: chorus + (bar?.from ?? 0), to: chorus + (bar?.to ?? timeline.length) }
  }
  return { from: barAt(first.at).from, to: barAt(last.at + last.for - 1).to }
}

/** What is played round: the bars asked for, else those of the line, else the whole form. */
export const spanOf = (tune: Tune, loop: Bars | null, line: readonly LineNote[], source: Source): Span => {
  const asked = loop && spanOfBars(tune.chart, loop.from, loop.to)
  const own = source.kind === 'line' ? spanOfLine(tune, line) : null
  return asked ?? own ?? { from: 0, to: tune.timeline.length }
}

/** Everything that would be played now. */
export const scoreFor = (source: Source, tune: Tune, place: Place, desk: Desk): Score => {
  const line = lineOfSource(source, tune, desk)
  const feel = place.feel ?? feelOf(tune.chart)
  const tempo = place.tempo ?? tune.chart.tempo
  return scoreOf({
    ...tune,
    feel,
    tempo,
    swing: swingOf(feel, tempo, desk.settings.swing),
    span: spanOf(tune, place.loop, line, source),
    line,
  })
}

/** The tick where a bar begins in the chorus a span begins in; the span's start where the bar lies outside it. */
export const startAt = ({ chart, timeline }: Tune, span: Span, bar: number): number => {
  const found = barsAt(chart).find((b) => b.number === bar)
  const chorus = timeline.length > 0 ? Math.floor(span.from / timeline.length) * timeline.length : 0
  const at = chorus + (found?.from ?? 0)
  return at >= span.from && at < span.to ? at : span.from
}
