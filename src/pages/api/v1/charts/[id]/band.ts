import { readChart } from '../../../../../core/index.ts'
import { LINE_FORMATS } from '../../../../../formats/line-write.ts'
import { writeBandMidi } from '../../../../../formats/write-midi.ts'
import { QUERIES } from '../../../../../server/compute-schemas.ts'
import { download, endpoint, notAllowed, orProblem, readQuery } from '../../../../../server/door.ts'
import { getRow } from '../../../../../server/rows.ts'
import { store } from '../../../../../server/store.ts'

/** A band playing a chart once through, as a MIDI file. */
export const GET = endpoint(async ({ url, params }) => {
  const manner = readQuery(url, QUERIES.band)
  const row = await getRow(await store(), 'charts', params.id ?? '')
  const chart = orProblem('text', readChart(String(row.text)))
  return download(writeBandMidi(chart, null, manner), String(row.title), LINE_FORMATS.midi)
})
export const ALL = notAllowed
