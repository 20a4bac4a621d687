import { type LineAsk, UNISON } from '../../../core/index.ts'
import type { Address } from '../address/address.ts'
import type { Kept } from '../kept/kept.ts'
import { settingsFrom } from '../kept/settings.ts'
import { $openChart } from '../tune/open-chart.ts'
import { $lineNotes, lineAsk, lineHere, notesOf } from './lines.ts'
import { $making, draftHere, draftName } from './making.ts'

/** The line a sheet is made of, in concert pitch: the draft in view, else the kept line; null where there is none. */
export const lineAskInView = (
  address: Address,
  kept: Kept,
): { readonly name: string; readonly ask: LineAsk } | null => {
  const [draft, openChart, making] = [draftHere(), $openChart.get(), $making.get().ask]
  if (draft && openChart && making) {
    const { text, overrides, school, weights } = making
    const ask = { text, overrides, school, weights, written: UNISON, notes: draft.line }
    return { name: draftName(address, openChart), ask }
  }
  const row = lineHere(address, kept)
  const notes = row && notesOf(row, $lineNotes.get())
  const ask = row && notes && lineAsk(row, notes, kept, settingsFrom(kept.settings).school)
  return row && ask ? { name: row.name, ask } : null
}
