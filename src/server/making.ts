import {
  barsAt,
  type Chart,
  compass,
  type Draft,
  degree,
  fingeringOf,
  type LaidFrom,
  type LineNote,
  type MakeError,
  type MakePlan,
  type MakeRequest,
  MOST,
  makeLines,
  momentOf,
  printCount,
  readFigure,
  readOverlay,
  readTuning,
  type Tuning,
  tuneOf,
  VALUES,
} from '../core/index.ts'
import { writeLine } from '../formats/line-write.ts'
import { type Accents, LANDING_WORDS, type LaidAsked, type MakeAsked, type PlanOfLine } from './make-schemas.ts'
import { fieldProblem } from './problems.ts'
import { chartAt, noBar, orProblem } from './texts.ts'

/** A bar and beat of a chart in ticks; `path` names the field that says so. */
const ticksAt = (chart: Chart, bar: number, beat: number, path: string, bars = barsAt(chart)): number => {
  const found = bars.find((b) => b.number === bar)
  if (!found) {
    const [first, last] = [chart.bars[0]?.number ?? 1, chart.bars.at(-1)?.number ?? 1]
    throw noBar(path, bar, first, last)
  }
  return Math.round(momentOf(found, beat))
}

const laidOf = (chart: Chart, laid: readonly LaidAsked[], path: string): readonly LaidFrom[] => {
  const bars = barsAt(chart)
  return laid
    .map(({ bar, beat, overlay }, i) => ({
      from: ticksAt(chart, bar, beat, `${path}.${i}.bar`, bars),
      overlay: overlay === null ? null : orProblem(`${path}.${i}.overlay`, readOverlay(overlay)),
    }))
    .sort((a, b) => a.from - b.from)
}

/** The plan of a line as the core takes it. */
const planOf = (plan: PlanOfLine, chart: Chart): MakePlan => {
  if (typeof plan === 'string') return plan
  if ('overlays' in plan) return laidOf(chart, plan.overlays, 'plan.overlays')
  if ('route' in plan) {
    const isList = Array.isArray(plan.route)
    const steps = isList ? (plan.route as readonly LaidAsked[]) : (plan.route as { steps: readonly LaidAsked[] }).steps
    return laidOf(chart, steps, isList ? 'plan.route' : 'plan.route.steps')
  }
  const own = 'pair' in plan && plan.pair ? orProblem('plan.pair', readOverlay(plan.pair)) : null
  const laid = laidOf(chart, plan.pairs ?? [], 'plan.pairs')
  for (const [i, { overlay }] of [{ overlay: own }, ...laid].entries())
    if (overlay && !overlay.groups)
      throw fieldProblem(
        i === 0 ? 'plan.pair' : `plan.pairs.${i - 1}.overlay`,
        `${overlay.name} is no pair.`,
        overlay.name,
        ['two triads such as G & Am'],
      )
  return own ? [{ from: 0, overlay: own }, ...laid] : laid
}

/** Strings from lowest to highest; null where none were sent. */
const stringsOf = (text: string): Tuning | null => (text === '' ? null : orProblem('strings', readTuning(text)))

/** Where most instruments lie, sounding. */
const USUAL_RANGE = [55, 81] as const

const FIELD_OF: Readonly<Record<MakeError['code'], string>> = {
  nothing_to_play: 'plan',
  out_of_range: 'range',
  no_landing: 'landing',
  too_late: 'rhythm.start',
}

export const sentNotes = (line: readonly LineNote[]) => ({
  notes: line.map((n) => ({ at: n.at, for: n.for, pitch: n.pitch })),
})

const accented = (draft: Draft, accents: Accents): readonly number[] =>
  draft.notes.flatMap((n, i) => {
    const starts = draft.groups.some((g) => g.from === i)
    const isTwoOrFour = n.beat === 2 || n.beat === 4
    const is = { none: false, 'on 2 and 4': isTwoOrFour, 'group starts': starts, 'off beats': !n.onBeat }[accents]
    return is ? [i + 1] : []
  })

/** A request as the core takes it. */
export const requestOf = (asked: MakeAsked, chart: Chart, length: number): MakeRequest => {
  const figure = orProblem('figure', readFigure(asked.figure))
  const { bars, landing, rhythm, school, weights } = asked
  const plays = compass(asked.for)
  const range = asked.range ?? (plays ? ([plays.low - plays.up, plays.high - plays.up] as const) : USUAL_RANGE)
  const bounds = barsAt(chart)
  const from = bars ? ticksAt(chart, bars[0], 1, 'bars.0') : (bounds.find((b) => b.number >= 1)?.from ?? 0)
  const to = bars ? (bounds.find((b) => b.number === bars[1])?.to ?? ticksAt(chart, bars[1], 1, 'bars.1')) : length
  if ((to - from) / VALUES[rhythm.value] > MOST.notes)
    throw fieldProblem('bars', `That is more than ${printCount(MOST.notes)} notes.`, '', ['fewer bars'])
  return {
    ...{ plan: planOf(asked.plan, chart), from, to, figure, approach: asked.approach, before: asked.before },
    ...{ approachTakes: asked.takes, rhythm, path: asked.path ?? (figure.step < 0 ? 'down' : 'up'), wave: asked.wave },
    ...{ order: asked.order, inversion: asked.inversion, range, limit: asked.limit, school, weights },
    landing: landing && {
      at: ticksAt(chart, landing.bar, landing.beat, 'landing.bar'),
      up: degree(landing.degree).semitones % 12,
      how: LANDING_WORDS[landing.how] ?? 'any',
    },
  }
}

/** Makes lines as the interface answers them. */
export const makeAnswer = (asked: MakeAsked) => {
  const chart = chartAt(asked.text, asked.key)
  const tune = tuneOf(chart, asked.overrides, { school: asked.school })
  const { timeline } = tune
  const strings = stringsOf(asked.strings)
  const made = makeLines(requestOf(asked, tune.chart, timeline.length), timeline)
  if (!made.ok) throw fieldProblem(FIELD_OF[made.error.code], made.error.why, '')
  return { lines: made.value.map((draft) => draftAnswer(draft, asked, chart, strings)) }
}

const draftAnswer = (draft: Draft, asked: MakeAsked, chart: Chart, strings: Tuning | null) => {
  const abc = writeLine(asked.figure, draft.line, chart, 'abc')
  const led = new Set(draft.approaches)
  return {
    line: sentNotes(draft.line),
    abc: abc.ok ? abc.value : '',
    terms: draft.terms,
    total: draft.total,
    joins: draft.joins,
    groups: draft.groups.map(({ from, to, of, adds }) => ({ from: from + 1, to: to + 1, of, adds })),
    notes: draft.notes.map((n, i) => ({
      ...{ n: i + 1, bar: n.bar, beat: n.beat, pitch: n.pitch, name: n.name.name, degree: n.degree, role: n.role },
      ...{ fade: n.fade, approach: led.has(i) },
    })),
    ...(asked.rhythm.accents === 'none' ? {} : { accents: accented(draft, asked.rhythm.accents) }),
    ...(strings
      ? {
          fingering: fingeringOf(
            draft.line.map((n) => n.pitch),
            strings,
            { window: { from: asked.frets[0], to: asked.frets[1] }, open: asked.open },
          ),
        }
      : {}),
    why: draft.why,
    fade: draft.fade,
    landing: draft.landing,
  }
}
