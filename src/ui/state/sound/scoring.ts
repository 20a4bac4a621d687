import {
  barsAt,
  feelOf,
  type LaidSpan,
  type LineNote,
  type LinePath,
  lineThrough,
  type Overlay,
  readFigure,
  reverse,
  type Span,
  spanOfBars,
  swingOf,
  type Tune,
  transposeOverlay,
  type ValueName,
} from '../../../core/index.ts'
import { type Score, scoreOf } from '../../../sound/score.ts'
import type { Address } from '../address/address.ts'
import type { Bars } from '../address/parts/band.ts'
import { $lineNotes, $lines, notesOf, sounded } from '../line/lines.ts'
import { inView } from '../route/steering.ts'
import { latest } from '../tune/latest.ts'
import type { OpenChart } from '../tune/open-chart.ts'

/** What is played with the band: a kept line, the band alone, the overlays that are laid over the chart, or the steps of the route in view. */
export type Source =
  | { readonly kind: 'line'; readonly id: string }
  | { readonly kind: 'draft'; readonly line: readonly LineNote[] }
  | { readonly kind: 'laid' }
  | { readonly kind: 'band' }
  | { readonly kind: 'route'; readonly steps: readonly LaidSpan[] }

const step = (from: number, to: number, overlay: Overlay, { instrument }: OpenChart): LaidSpan => ({
  ...{ from, to, overlay: transposeOverlay(overlay, reverse(instrument.written)) },
})

/** The overlays laid over a chart's chords; chords that have only their home scale rest. */
const laidRuns = (openChart: OpenChart): readonly LaidSpan[] => {
  let at = 0
  return openChart.spots.flatMap((s) => {
    const from = at
    at += s.spot.length
    const laid = s.reading && s.by !== 'home'
    return laid ? [step(from, at, s.reading.overlay, openChart)] : []
  })
}

/** The steps of the route in view as runs, by their bars and beats. */
export const routeRuns = (tune: Tune, openChart: OpenChart): readonly LaidSpan[] => {
  const bars = barsAt(tune.chart)
  const { beat } = tune.timeline
  return (inView()?.steps ?? []).flatMap(({ slot, overlay }) => {
    const bar = bars.find((b) => b.number === slot.bar)
    const from = bar && bar.from + (slot.beat - 1) * beat
    return overlay && from !== undefined ? [step(from, from + slot.beats * beat, overlay, openChart)] : []
  })
}

/** What the band plays a route through: a voice's middle, two octaves. */
const RANGE = [58, 82] as const

/** A line through what is laid, in the figure and the rhythm chosen in Make, a run of eighths until one is. */
const playedThrough = latest(
  (spans: string, figure: string, path: LinePath, value: ValueName, tune: Tune, settings: OpenChart['settings']) => {
    const read = readFigure(figure)
    return lineThrough(
      JSON.parse(spans) as readonly LaidSpan[],
      {
        ...{ figure: read.ok ? read.value : { places: [1], step: 1 }, approach: 'none', before: 'group' },
        ...{ approachTakes: 'time before', rhythm: { value, start: 1, rest: null }, path, wave: 4, order: 'alternate' },
        ...{ inversion: 'climb', range: RANGE, school: settings.school, weights: settings.weights },
      },
      tune.timeline,
    )
  },
)

const lineOfSource = (source: Source, tune: Tune, address: Address, openChart: OpenChart): readonly LineNote[] => {
  const { makeFigure, makePath, makeValue } = address
  const through = (spans: readonly LaidSpan[]) =>
    playedThrough(JSON.stringify(spans), makeFigure ?? '1', makePath, makeValue, tune, openChart.settings)
  if (source.kind === 'laid') return through(laidRuns(openChart))
  if (source.kind === 'route') return through(source.steps)
  if (source.kind === 'draft') return source.line
  if (source.kind === 'band') return []
  const row = $lines.get().find((r) => r.id === source.id)
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
  const own = source.kind === 'line' || source.kind === 'draft' ? spanOfLine(tune, line) : null
  return asked ?? own ?? { from: 0, to: tune.timeline.length }
}

/** Everything that would be played now. */
export const scoreFor = (source: Source, tune: Tune, address: Address, openChart: OpenChart): Score => {
  const line = lineOfSource(source, tune, address, openChart)
  const feel = address.feel ?? feelOf(tune.chart)
  const tempo = address.tempo ?? tune.chart.tempo
  return scoreOf({
    ...tune,
    feel,
    tempo,
    swing: swingOf(feel, tempo, openChart.settings.swing),
    span: spanOf(tune, address.loop, line, source),
    line,
  })
}
