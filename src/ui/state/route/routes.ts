import {
  type KeptStep,
  readChord,
  readOverlay,
  reverse,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import { $address, go } from '../address/address.ts'
import { $kept, sayKept } from '../kept/kept.ts'
import type { RouteRow } from '../kept/row-types.ts'
import { addRow, removeRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import type { OpenChart } from '../tune/open-chart.ts'
import { readPlan } from './plan-words.ts'

/** A step in concert pitch, without what can be worked out again. */
const concertStep = (step: KeptStep, openChart: OpenChart): KeptStep => {
  const back = reverse(openChart.instrument.written)
  const [chord, overlay] = [readChord(step.chord ?? ''), readOverlay(step.overlay ?? '')]
  const { seam: _, why: __, terms: ___, ...plain } = step
  return {
    ...plain,
    ...(chord.ok ? { chord: transposeChord(chord.value, back).symbol } : {}),
    overlay: overlay.ok ? transposeOverlay(overlay.value, back).name : step.overlay,
  }
}

export const concertSteps = (steps: readonly KeptStep[], openChart: OpenChart): readonly KeptStep[] =>
  steps.map((s) => concertStep(s, openChart))

/** Keeps a route (written pitch) with the open chart, under a name, beside the one in hand. */
export const keepRoute = (name: string, steps: readonly KeptStep[], openChart: OpenChart): void => {
  const [address, chart] = [$address.get(), $kept.get()?.chart ?? null]
  if (!address) return
  const own = openChart.isSketch ? null : chart
  const id = addRow('routes', {
    name,
    note: null,
    chartId: own?.id ?? null,
    chartVersion: own?.version || null,
    steps: concertSteps(steps, openChart),
    rules: readPlan(address.plan),
    inHand: false,
  })
  go({ panel: 'kept' })
  void sayKept('routes', id)
}

export const removeRoute = async (row: RouteRow): Promise<void> => {
  const gone = await removeRow('routes', row.id)
  if (!gone.ok) return say(`Not removed: ${gone.detail}`)
  if ($address.get()?.against === row.id) go({ against: null })
  say('Removed.', 'undo')
}
