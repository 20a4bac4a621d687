import {
  barRound,
  type Chart,
  DEFAULT_SCHOOL,
  inKey,
  keysInOrder,
  type Line,
  lickOver,
  MOST,
  makeLines,
  placesIn,
  printCount,
  readChart,
  readOverlay,
  readQuestion,
  servingsOf,
  studyOf,
  type Tune,
  tuneOf,
  type Variant,
  varyLine,
} from '../core/index.ts'
import { drawnFrom } from './drawn.ts'
import { lineFrom } from './lines.ts'
import { MAKE_BODY, type MakeAsked, type ReuseAsked, type StudyAsked, type VaryAsked } from './make-schemas.ts'
import { requestOf, sentNotes } from './making.ts'
import { fieldProblem } from './problems.ts'
import { chartAt, orProblem } from './texts.ts'

const someNotes = async (sent: Parameters<typeof lineFrom>[0], path: string): Promise<Line> => {
  const line = await lineFrom(sent, path)
  if (line.length === 0) throw fieldProblem(path, 'The line has no notes.', '', ['at least one note'])
  return line
}

const placesOf = (text: string): readonly number[] => {
  const places = text.trim().split(/\s+/).map(Number)
  if (places.length < 2 || places.some((p) => !Number.isInteger(p) || p < 1 || p > places.length))
    throw fieldProblem('order', 'An order names the notes of a group by their places.', text, [
      '2 1',
      '1 3 2',
      '4 3 2 1',
    ])
  return places
}

const variantOf = (asked: VaryAsked): Variant => {
  const { by } = asked
  switch (by) {
    case 'rhythm':
      return { by, value: asked.value, start: asked.start }
    case 'displace':
      return { by, ticks: asked.ticks }
    case 'sequence':
      return { by, semitones: asked.semitones, steps: asked.steps, times: asked.times }
    case 'carry':
      return { by, overlay: orProblem('overlay', readOverlay(asked.overlay)) }
    case 'approach':
      return { by, approach: asked.approach }
    case 'order':
      return { by, places: placesOf(asked.order) }
    default:
      return { by }
  }
}

/** A line varied, as the interface answers it; notes are counted from 1. */
export const varyAnswer = async (asked: VaryAsked) => {
  const chart = chartAt(asked.text, asked.key)
  const line = await someNotes(asked.line, 'line')
  const { timeline } = tuneOf(chart, asked.overrides, { school: asked.school })
  const [from, to] = [asked.from ?? 1, asked.to ?? line.length]
  if (from > to || to > line.length)
    throw fieldProblem('to', `The line has ${line.length} notes.`, String(to), [`${from} to ${line.length}`])
  if (asked.by === 'sequence' && (to - from + 1) * (asked.times + 1) > MOST.notes)
    throw fieldProblem('times', `That is more than ${printCount(MOST.notes)} notes.`, String(asked.times), [
      'fewer times',
    ])
  const made = varyLine(line, from - 1, to - 1, variantOf(asked), { timeline, weights: asked.weights })
  return {
    lines: made.map(({ name, line: varied, why, meets = [] }) => ({
      ...{ name, line: sentNotes(varied), why },
      meets: meets.map((m) => ({ ...m, n: m.n + 1 })),
    })),
  }
}

/** The chord a lick was played on, and the chart of it: one chord, or a text of chords of which the first counts. */
const overOf = (over: string): Tune => {
  const read = readChart(/[|\n=]/.test(over) ? over : `| ${over} |`)
  if (!read.ok) throw fieldProblem('over', `“${over}” is not understood as a chord.`, over, ['a chord such as Am6'])
  return tuneOf(read.value, [])
}

const firstChord = ({ timeline }: Tune, over: string) => {
  const chord = timeline.soundings.find((s) => s.place)?.place?.chord
  if (!chord) throw fieldProblem('over', 'A lick is described over a chord.', over, ['a chord such as Am6'])
  return chord
}

/** Where else a lick serves, as the interface answers it. */
export const reuseAnswer = async (asked: ReuseAsked) => {
  const line = await someNotes(asked.line, 'line')
  if (line.length > MOST.lick)
    throw fieldProblem('line', `A lick has at most ${MOST.lick} notes; this line has ${printCount(line.length)}.`, '', [
      'a piece of it',
    ])
  const tune = overOf(asked.over)
  const chord = firstChord(tune, asked.over)
  const lick = lickOver(line, tune.timeline)
  const { parts, serves } = servingsOf(lick, chord, asked.school, asked.weights)
  const gate = parts.some((p) => p.isDominant)
  const chart =
    asked.text === '' ? null : tuneOf(chartAt(asked.text, asked.key), asked.overrides, { school: asked.school })
  const places = chart ? placesIn(lick, chart.timeline, gate, asked.range, asked.weights) : []
  return {
    parts: parts.map(({ from, to, implies }) => ({ from: from + 1, to: to + 1, implies })),
    serves,
    places: places.map(({ line: there, ...p }) => ({ ...p, line: sentNotes(there) })),
    keys: keysInOrder(asked.order, drawnFrom(asked.seed)).map((by) => ({
      semitones: by,
      line: sentNotes(inKey(line, by, asked.range)),
    })),
  }
}

const madeOver = (of: MakeAsked): { readonly line: Line; readonly tune: Tune; readonly chart: Chart } => {
  const chart = chartAt(of.text, of.key)
  const tune = tuneOf(chart, of.overrides, { school: of.school })
  const made = makeLines(requestOf({ ...of, limit: 1 }, tune.chart, tune.timeline.length), tune.timeline)
  if (!made.ok) throw fieldProblem('of', made.error.why, '')
  return { line: made.value[0]?.line ?? [], tune, chart }
}

/** What is asked for in words, as what is to be made over the chord it names. */
const inWords = (of: string): MakeAsked => {
  const question = orProblem('of', readQuestion(of, DEFAULT_SCHOOL))
  if (question.kind !== 'reading')
    throw fieldProblem('of', 'A study in words names an overlay and its chord.', of, ['G & Am over Cmaj7'])
  const { overlay, chord } = question
  const figure = overlay.notes.length < 5 || overlay.groups ? '1 3 5' : '1 2 3 5'
  const plan = { overlays: [{ bar: 1, beat: 1, overlay: overlay.name }] }
  return MAKE_BODY.validate({ text: `| ${chord.symbol} |`, plan, figure }).value as MakeAsked
}

/** A study, as the interface answers it: what is asked for through keys, or through the chart that is sent. */
export const studyAnswer = async (asked: StudyAsked) => {
  const of = typeof asked.of === 'string' ? inWords(asked.of) : asked.of
  if ('figure' in of) {
    const { line, tune, chart } = madeOver({ ...of, text: of.text || asked.text })
    const chords = new Set(tune.timeline.soundings.map((s) => s.place?.chord.symbol))
    const name = typeof asked.of === 'string' ? asked.of : `${of.figure} on ${nameOfPlan(of.plan)}`
    if (chords.size > 1)
      return {
        text: of.text || asked.text,
        line: sentNotes(line),
        title: `${name} through ${chart.title || 'a chart'}`,
      }
    return through(line, tune, name.replace(/ over .*$/, ''), asked)
  }
  const line = await someNotes(of.line, 'of.line')
  return through(line, overOf(of.over), of.name ?? 'A lick', asked)
}

const nameOfPlan = (plan: MakeAsked['plan']): string => {
  if (typeof plan === 'string') return plan === 'home' ? 'the home scales' : 'the chords'
  return 'pair' in plan && plan.pair ? plan.pair : 'what is laid'
}

const through = (line: Line, tune: Tune, name: string, asked: StudyAsked) => {
  const { from, metre } = barRound(tune.timeline, line[0]?.at ?? 0) ?? { from: 0, metre: tune.chart.metre }
  const study = studyOf(
    {
      ...{ line, chord: firstChord(tune, ''), name, keys: asked.keys, order: asked.order, range: asked.range },
      ...{ from, metre },
    },
    drawnFrom(asked.seed),
  )
  return { text: study.text, line: sentNotes(study.line), title: study.title }
}
