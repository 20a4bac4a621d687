import { barRound, type KeyOrder, type Line, namedNotes, soundingAt, studyOf } from '../../../core/index.ts'
import { $address, go } from '../address/address.ts'
import { $kept, sayKept } from '../kept/kept.ts'
import { addRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { concertTune } from '../tune/concert.ts'

/** Twelve keys; the range of most instruments in concert pitch. */
const KEYS = 12
const RANGE = [48, 84] as const

/** A line through twelve keys, kept as a chart of its chords and one long line over it, and shown. Undone at once, both. */
export const keepStudy = (name: string, line: Line, order: KeyOrder): void => {
  const [address, kept] = [$address.get(), $kept.get()]
  const tune = address && kept && concertTune(address, kept)
  const chord = tune && line.flatMap((n) => soundingAt(tune.timeline, n.at)?.place?.chord ?? [])[0]
  if (!tune || !chord) return say('It lies over no chord, so there is nothing to take through the keys.')
  const { from, metre } = barRound(tune.timeline, line[0]?.at ?? 0) ?? { from: 0, metre: tune.chart.metre }
  const study = studyOf(
    {
      ...{ line, chord, name, keys: KEYS, order, range: RANGE },
      ...{ from, metre },
    },
    Math.random,
  )
  const join = `study ${name}`
  const chartId = addRow(
    'charts',
    { title: study.title.slice(0, 200), text: study.text, tags: ['study'], overrides: null },
    join,
  )
  const id = addRow(
    'lines',
    {
      ...{
        name: study.title.slice(0, 200),
        chartId,
        text: null,
        played: null,
        tags: [],
        disputed: null,
        routeId: null,
      },
      line: { notes: namedNotes(study.line) },
    },
    join,
  )
  go({ chart: chartId, sketch: null, line: id, note: 0, bar: 1, beat: 1, make: 'off', loop: null })
  void sayKept('lines', id)
}
