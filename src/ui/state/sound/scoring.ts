import {
  barsAt,
  feelOf,
  type LineNote,
  type Overlay,
  type RunStep,
  rotate,
  runThrough,
  type Span,
  spanOfBars,
  swingOf,
  type Tune,
} from '../../../core/index.ts'
import { type Score, scoreOf } from '../../../sound/score.ts'
import type { Address } from '../address/address.ts'
import type { Bars } from '../address/parts/band.ts'
import { $lineNotes, $lines, notesOf, sounded } from '../line/lines.ts'
import { inView } from '../route/steering.ts'
import type { OpenChart } from '../tune/open-chart.ts'

/** What is played with the band: a kept line, the overlays that are laid over the chart, or the steps of the route in view. */
export type Source =
  | { readonly kind: 'line'; readonly id: string }
  | { readonly kind: 'draft'; readonly line: readonly LineNote[] }
  | { readonly kind: 'laid' }
  | { readonly kind: 'route'; readonly steps: readonly RunStep[] }

const EIGHTHS_IN_BEAT = 2

const step = (from: number, to: number, overlay: Overlay, down: number): RunStep => ({
  from,
  to,
  set: rotate(overlay.set, (12 - (down % 12)) % 12),
})

/** The overlays laid over a chart's chords as runs of eighths; chords that have only their home scale rest. */
const laidRuns = ({ spots, instrument }: OpenChart): readonly RunStep[] => {
  let at = 0
  return spots.flatMap((s) => {
    const from = at
    at += s.spot.length
    const laid = s.reading && s.by !== 'home'
    return laid ? [step(from, at, s.reading.overlay, instrument.written.semitones)] : []
  })
}

/** The steps of the route in view as runs, by their bars and beats. */
export const routeRuns = (tune: Tune, openChart: OpenChart): readonly RunStep[] => {
  const bars = barsAt(tune.chart)
  const { beat } = tune.timeline
  return (inView()?.steps ?? []).flatMap(({ slot, overlay }) => {
    const bar = bars.find((b) => b.number === slot.bar)
    const from = bar && bar.from + (slot.beat - 1) * beat
    return overlay && from !== undefined
      ? [step(from, from + slot.beats * beat, overlay, openChart.instrument.written.semitones)]
      : []
  })
}

const lineOfSource = (source: Source, tune: Tune, openChart: OpenChart): readonly LineNote[] => {
  const each = tune.timeline.beat / EIGHTHS_IN_BEAT
  if (source.kind === 'laid') return runThrough(laidRuns(openChart), each)
  if (source.kind === 'route') return runThrough(source.steps, each)
  if (source.kind === 'draft') return source.line
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
  const line = lineOfSource(source, tune, openChart)
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
