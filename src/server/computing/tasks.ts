import {
  ANYTHING,
  instrument,
  type KeptOverride,
  type KeptStep,
  ownSymbol,
  readChart,
  readOverlay,
  readOverrides,
  readQuestion,
  readTune,
  tuneOf,
} from '../../core/index.ts'
import { CHART_FORMATS } from '../../formats/chart-formats.ts'
import { readChartFile, writeChart } from '../../formats/files.ts'
import { LINE_FORMATS, writeLine } from '../../formats/line-write.ts'
import { ROUTE_FORMATS, writeRoute } from '../../formats/routes.ts'
import { writeBandMidi } from '../../formats/write-midi.ts'
import { analysisAnswer } from '../analysis.ts'
import { checkJson, checkQuery, checkUpload, type Upload } from '../check.ts'
import { BODIES, QUERIES } from '../compute-schemas.ts'
import { FILE_QUERIES } from '../file-schemas.ts'
import { importAnswer } from '../imports.ts'
import { isKind } from '../kinds.ts'
import { lineFileAnswer } from '../line-files.ts'
import { auditAnswer, lineFrom, type SentLine } from '../lines.ts'
import { MAKE_BODY, REUSE_BODY, STUDY_BODY, VARY_BODY } from '../make-schemas.ts'
import { makeAnswer } from '../making.ts'
import { reuseAnswer, studyAnswer, varyAnswer } from '../making-lines.ts'
import { openapi } from '../openapi.ts'
import { fieldError, fieldProblem, Problem } from '../problems.ts'
import { answer } from '../questions.ts'
import { QUIZ_BODY, quizAnswer } from '../quiz.ts'
import {
  ANY_PAIR,
  degreesOn,
  derivationAnswer,
  deriveOver,
  overlaysAnswer,
  pairsAnswer,
  qualitiesFrom,
} from '../rankings.ts'
import { planAnswer } from '../routes.ts'
import { NEW, READABLE, ROWS, VERSIONED } from '../schemas.ts'
import { TAKE_BODY } from '../take-schemas.ts'
import { takeAnswer, takeFile } from '../takes.ts'
import { chartAt, chordAt, nextAt, orProblem } from '../texts.ts'
import type { Answer, Asked, KeptText } from './asked.ts'

type Task = (asked: Asked) => Answer | Promise<Answer>

const json = (value: unknown): Answer => ({ kind: 'json', text: JSON.stringify(value) })
const upload = ({ type, body }: Asked): Promise<Upload> => checkUpload(type ?? '', body ?? new Uint8Array())
const sent = ({ body }: Asked): Uint8Array => body ?? new Uint8Array()
const keptOf = ({ kept }: Asked): KeptText => kept ?? { row: {}, chart: null }

const correctionsOf = (row: Readonly<Record<string, unknown>>) =>
  (row.overrides ?? null) as readonly KeptOverride[] | null

/** The chart a kept row lies over, with its own title; null where it has none any more or none that reads. */
const chartUnder = ({ chart }: KeptText) => {
  const read = chart && readChart(chart.text)
  if (!read?.ok) return null
  return chart?.title === undefined ? read.value : { ...read.value, title: chart.title }
}

const ask: Task = ({ query }) => {
  const { q, ...judges } = checkQuery(query, QUERIES.ask)
  return json(answer(orProblem('q', readQuestion(q, judges.school)), judges))
}

const overlays: Task = ({ query }) => {
  const asked = checkQuery(query, QUERIES.overlays)
  const chord = chordAt('chord', asked.chord)
  const next = nextAt('next', asked.next)
  const { fadeMin, fadeMax, landingMin, sort } = asked
  const filter = {
    ...ANYTHING,
    families: asked.families.length > 0 ? asked.families : ANYTHING.families,
    hold: degreesOn(chord, asked.hold),
    avoid: degreesOn(chord, asked.avoid),
    ...{ fadeMin, fadeMax, landingMin, sort },
  }
  return json(overlaysAnswer(chord, next, filter, asked, asked))
}

const pairs: Task = ({ query }) => {
  const asked = checkQuery(query, QUERIES.pairs)
  const { distance, exclusive } = asked
  const filter = { ...ANY_PAIR, qualities: qualitiesFrom(asked.qualities), distance, exclusive }
  return json(pairsAnswer(chordAt('chord', asked.chord), nextAt('next', asked.next), filter, asked, asked))
}

const derive: Task = ({ query }) => {
  const asked = checkQuery(query, QUERIES.derive)
  const scale = orProblem('scale', readOverlay(asked.scale))
  if (scale.material === null || ![6, 7, 8].includes(scale.notes.length))
    throw fieldProblem('scale', 'a scale of six, seven or eight notes is needed', asked.scale)
  const chord = chordAt('chord', asked.chord === '' ? ownSymbol(scale) : asked.chord)
  const derived = deriveOver(scale, asked.omit || null, chord, nextAt('next', asked.next), asked)
  if (derived === null) {
    const degrees = scale.material.formula.map((d) => d.name)
    const message = `${asked.omit} is not a degree of the scale: ${degrees.join(', ')}`
    throw fieldProblem('omit', message, asked.omit, degrees)
  }
  return json(derivationAnswer(derived))
}

const analyse: Task = (asked) => {
  const { text, key, overrides, school } = checkJson(sent(asked), BODIES.analyse)
  return json(analysisAnswer(chartAt(text, key), overrides, school))
}

const make: Task = (asked) => json(makeAnswer(checkJson(sent(asked), MAKE_BODY)))
const quiz: Task = (asked) => json(quizAnswer(checkJson(sent(asked), QUIZ_BODY)))
const take: Task = (asked) => json(takeAnswer(checkJson(sent(asked), TAKE_BODY)))
const vary: Task = async (asked) => json(await varyAnswer(checkJson(sent(asked), VARY_BODY)))
const reuse: Task = async (asked) => json(await reuseAnswer(checkJson(sent(asked), REUSE_BODY)))
const study: Task = async (asked) => json(await studyAnswer(checkJson(sent(asked), STUDY_BODY)))

const importFile: Task = async (asked) => {
  const { name, bytes } = await upload(asked)
  const { tune } = checkQuery(asked.query, FILE_QUERIES.import)
  const read = await readChartFile(bytes, tune)
  if (!read.ok)
    throw new Problem(read.error.code ?? 'bad_file', read.error.why, [fieldError('file', read.error.why, name)])
  return json(importAnswer(read.value, name))
}

const readLineFile: Task = async (asked) => {
  const { voice, grid } = checkQuery(asked.query, FILE_QUERIES.readLine)
  const { name, bytes } = await upload(asked)
  return json(await lineFileAnswer(bytes, name, voice, grid))
}

const exportChart: Task = (asked) => {
  const { as } = checkQuery(asked.query, FILE_QUERIES.export)
  const { title, text } = keptOf(asked).row
  const name = String(title)
  // As text it is the player's own, letter for letter, also where it does not read any more.
  if (as === 'text') return { kind: 'file', body: String(text), title: name, format: CHART_FORMATS.text }
  const chart = { ...orProblem('text', readChart(String(text))), title: name }
  return { kind: 'file', body: writeChart(chart, String(text), as), title: name, format: CHART_FORMATS[as] }
}

const band: Task = (asked) => {
  const { school, ...manner } = checkQuery(asked.query, FILE_QUERIES.band)
  const { row } = keptOf(asked)
  const { title, text } = row
  const tune = orProblem('text', readTune(String(text), correctionsOf(row), { school }))
  return { kind: 'file', body: writeBandMidi(tune, null, manner), title: String(title), format: LINE_FORMATS.midi }
}

const exportLine: Task = async (asked) => {
  const { as, band: withBand, school, ...manner } = checkQuery(asked.query, FILE_QUERIES.exportLine)
  const kept = keptOf(asked)
  const chart = chartUnder(kept)
  if (!chart)
    throw fieldProblem('as', 'The chart of this line is gone or does not read, and it has no text of its own.', as, [
      'a line with a chart',
    ])
  const name = String(kept.row.name)
  const line = await lineFrom(kept.row.line as SentLine, 'line')
  const tune = withBand ? tuneOf(chart, readOverrides(kept.chart?.overrides ?? null), { school }) : null
  const written = writeLine(name, line, chart, as, tune && { tune, manner })
  if (!written.ok) throw fieldProblem('line', written.error.why, '')
  return { kind: 'file', body: written.value, title: name, format: LINE_FORMATS[as] }
}

const exportRoute: Task = (asked) => {
  const { as, for: plays, clef } = checkQuery(asked.query, FILE_QUERIES.exportRoute)
  const kept = keptOf(asked)
  const chart = chartUnder(kept)
  if (as === 'musicxml' && !chart)
    throw fieldProblem('as', 'The chart of this route is gone, so there is no score to write it above.', as, [
      'text',
      'csv',
    ])
  const name = String(kept.row.name)
  const body = writeRoute(name, kept.row.steps as readonly KeptStep[], chart, as, {
    instrument: instrument(plays),
    clef,
  })
  return { kind: 'file', body, title: name, format: ROUTE_FORMATS[as] }
}

const exportTake: Task = (asked) => {
  const { as, school } = checkQuery(asked.query, FILE_QUERIES.exportTake)
  const { row } = keptOf(asked)
  return { kind: 'file', body: takeFile(row, as, school), title: String(row.name), format: LINE_FORMATS[as] }
}

/** Checks what a row is to hold, before it is kept; with `versioned` it is a whole row that was read before. */
const row: Task = async (asked) => {
  const { kind, versioned } = asked
  if (!isKind(kind)) throw new Problem('not_found', `${kind} is not part of this interface.`)
  const fields = checkJson(sent(asked), ROWS[kind].concat(versioned ? VERSIONED : NEW))
  await READABLE[kind](fields)
  return { kind: 'fields', fields }
}

/** Everything that may take longer than the page or another caller would wait for. */
export const TASKS = {
  ask,
  overlays,
  pairs,
  derive,
  analyse,
  audit: async (asked) => json(await auditAnswer(checkJson(sent(asked), BODIES.audit))),
  plan: async (asked) => json(await planAnswer(checkJson(sent(asked), BODIES.plan))),
  import: importFile,
  make,
  quiz,
  take,
  vary,
  reuse,
  study,
  readLine: readLineFile,
  exportChart,
  exportLine,
  exportRoute,
  exportTake,
  band,
  row,
  openapi: () => json(openapi(__VERSION__)),
} as const satisfies Readonly<Record<string, Task>>
export type TaskName = keyof typeof TASKS
