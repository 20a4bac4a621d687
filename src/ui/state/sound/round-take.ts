import { atom } from 'nanostores'
import { barsAt, beatOf, type KeptPlan, planOver, printChart, type Stage } from '../../../core/index.ts'
import { go } from '../address/address.ts'
import { stopRounds } from './practising.ts'
import { $onStage, concertStage } from './stage.ts'

/** A round that is to be played as a take: its chart in its key, what lies over it, and whose round it is. */
export interface RoundToTake {
  readonly text: string
  readonly itemId: string
  readonly name: string
  readonly key: string
  readonly chartId: string | null
  readonly plan: KeptPlan | null
}
export const $roundToTake = atom<RoundToTake | null>(null)

/** What lies over a round, from each chord at which it changes. */
const planOf = ({ tune: { timeline }, span, laid }: Stage): KeptPlan | null => {
  const steps = timeline.soundings
    .filter((s) => s.from >= span.from && s.from < span.to)
    .map(({ from, spot: { spot } }) => ({
      ...{ bar: spot.bar, beat: beatOf(spot) },
      overlay: laid.find((l) => l.from <= from && from < l.to)?.overlay.name ?? null,
    }))
  return planOver(steps)
}

/** Goes to Takes with the round in view: over its chart, in its key, at its tempo. */
export const takeRound = (): void => {
  const of = $onStage.get()
  const stage = of?.shown && concertStage(of, of.shown.round)
  if (!of?.shown || !stage) return
  stopRounds()
  const { item, shown } = of
  const { chart, timeline } = stage.tune
  const text = printChart({ ...chart, title: item.name, tempo: shown.tempo })
  const bars = barsAt(chart).filter((b) => b.from >= stage.span.from && b.from < stage.span.to)
  const [first, last] = [bars[0]?.number ?? 1, bars.at(-1)?.number ?? 1]
  const isWhole = stage.span.from <= 0 && stage.span.to >= timeline.length
  $roundToTake.set({
    ...{ text, itemId: item.id, name: item.name, key: shown.round.key },
    ...{ chartId: item.of.chartId ?? null, plan: planOf(stage) },
  })
  go({
    ...{ view: 'practice', practise: 'takes', take: null, otherTake: null, chart: null, sketch: text },
    ...{ bar: first, beat: 1, loop: isWhole ? null : { from: first, to: last }, tempo: null, feel: null, over: null },
  })
}
