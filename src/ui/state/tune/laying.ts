import { readOverlay, reverse, transposeOverlay } from '../../../core/index.ts'
import { choose } from '../address/address.ts'
import type { OpenChart } from './open-chart.ts'

/** The row that was laid last, and what it is in concert pitch: a name may be spelled anew on its way there and back. */
let laid: { readonly name: string; readonly over: string } | null = null

/** Lays a named overlay (written pitch) over the chord. */
export const layWritten = (name: string, { instrument }: Pick<OpenChart, 'instrument'>): void => {
  const read = readOverlay(name)
  if (!read.ok) return
  const over = transposeOverlay(read.value, reverse(instrument.written)).name
  laid = { name, over }
  choose('what was laid over', { over }, 'over')
}

/** What the row was called that was laid last, where that is what lies there now. */
export const laidName = (over: string | null): string | null =>
  over !== null && laid?.over === over ? laid.name : null
