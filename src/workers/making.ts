import {
  type ApproachName,
  heardIn,
  type Interval,
  type InversionPath,
  type ItemOf,
  inKey,
  type KeptOverride,
  keysInOrder,
  type Line,
  type LinePath,
  lickOver,
  lineOf,
  MOST,
  makeLines,
  midi,
  placesIn,
  type RoundVariant,
  readFigure,
  readOverlay,
  readRest,
  readTune,
  type School,
  type Serving,
  type Sources,
  type StageSettings,
  servingsOf,
  soundingAt,
  stageOf,
  type TriadOrder,
  type ValueName,
  type Weights,
} from '../core/index.ts'

/** Lines to be made, in words that can be sent; all in concert pitch, times in ticks. */
export interface MakeAsk {
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly school: School
  readonly weights: Weights
  readonly plan: 'home' | 'chord' | readonly { readonly from: number; readonly overlay: string | null }[]
  readonly from: number
  readonly to: number
  readonly figure: string
  readonly path: LinePath
  readonly value: ValueName
  readonly start: number
  readonly rest: string
  readonly approach: ApproachName
  readonly order: TriadOrder
  readonly inversion: InversionPath
  readonly range: readonly [number, number]
  /** Semitones above the root of the chord that follows; null where the line need not land. */
  readonly landing: number | null
  readonly limit: number
}

/** A draft as it is shown: its notes, how far out each is, what it costs and why. */
export interface MadeLine {
  readonly line: Line
  readonly fades: readonly number[]
  readonly total: number
  readonly fade: number
  readonly landing: number | null
  readonly why: string
  readonly joins: readonly string[]
  readonly groups: readonly { readonly from: number; readonly to: number; readonly of: string; readonly adds: string }[]
}

export type Made =
  | { readonly kind: 'lines'; readonly lines: readonly MadeLine[] }
  | { readonly kind: 'none'; readonly why: string }

const planOf = (plan: MakeAsk['plan']) =>
  typeof plan === 'string'
    ? plan
    : plan.map(({ from, overlay }) => {
        const read = overlay === null ? null : readOverlay(overlay)
        return { from, overlay: read?.ok ? read.value : null }
      })

/** Makes lines, or says why there are none. */
export const making = (ask: MakeAsk): Made => {
  const tune = readTune(ask.text, ask.overrides, { school: ask.school })
  const figure = readFigure(ask.figure)
  if (!tune.ok) return { kind: 'none', why: 'The chart does not read.' }
  if (!figure.ok) return { kind: 'none', why: `“${figure.error.found}” is no place: 1 3 5, or 1 2 3 5 step 1.` }
  const { timeline } = tune.value
  const { from, to, approach, path, order, inversion, range, limit, school, weights } = ask
  const made = makeLines(
    {
      ...{ plan: planOf(ask.plan), from, to, figure: figure.value, approach, before: 'group', path, wave: 4 },
      ...{ approachTakes: 'time before', order, inversion, range, limit, school, weights },
      rhythm: { value: ask.value, start: ask.start, rest: readRest(ask.rest) },
      landing: ask.landing === null ? null : { at: to, up: ask.landing, how: 'any' },
    },
    timeline,
  )
  if (!made.ok) return { kind: 'none', why: made.error.why }
  return {
    kind: 'lines',
    lines: made.value.map((d) => ({
      ...{ line: d.line, fades: d.notes.map((n) => n.fade), total: d.total, fade: d.fade, landing: d.landing },
      ...{ why: d.why, joins: d.joins.map((j) => j.text), groups: d.groups },
    })),
  }
}

/** A round of a practice item that is to be heard, in words that can be sent. */
export interface HeardAsk {
  readonly of: ItemOf
  readonly key: string
  readonly variant: RoundVariant
  readonly sources: Sources
  readonly settings: StageSettings
}

/** What sounds in that round; nothing where there is no such round. */
export const hearing = ({ of, key, variant, sources, settings }: HeardAsk): Line => {
  const stage = stageOf(of, key, variant, sources, settings)
  return stage ? heardIn(stage, settings) : []
}

/** A lick to be used again: its notes in concert pitch, the chart it lies over, and the pitch it is read in. */
export interface ReuseAsk {
  readonly text: string
  readonly overrides: readonly KeptOverride[] | null
  readonly school: School
  readonly weights: Weights
  readonly written: Interval
  readonly notes: Line
  readonly range: readonly [number, number]
}

/** Where a lick serves, in written names; lines in concert pitch. */
export interface Reused {
  readonly over: string
  readonly parts: readonly { readonly from: number; readonly to: number; readonly implies: string }[]
  readonly serves: readonly Serving[]
  readonly keys: readonly { readonly semitones: number; readonly line: Line }[]
  readonly places: readonly {
    readonly bar: number
    readonly beat: number
    readonly chord: string
    readonly startDegree: string
    readonly fade: number
    readonly cut: boolean
    readonly line: Line
  }[]
}

const shifted = (line: Line, by: number): Line =>
  lineOf(line.map((n) => ({ at: n.at, for: n.for, pitch: midi(n.pitch + by) })))

/** Finds where else a lick serves; null where it lies over no chord, or is no lick. */
export const reusing = (ask: ReuseAsk): Reused | null => {
  if (ask.notes.length > MOST.lick) return null
  const { school, weights, written } = ask
  const tune = readTune(ask.text, ask.overrides, { school, written })
  if (!tune.ok) return null
  const { timeline } = tune.value
  const line = shifted(ask.notes, written.semitones)
  const own = line.flatMap((n) => soundingAt(timeline, n.at)?.place?.chord ?? [])[0]
  if (!own) return null
  const lick = lickOver(line, timeline)
  const { parts, serves } = servingsOf(lick, own, school, weights)
  const range = [ask.range[0] + written.semitones, ask.range[1] + written.semitones] as const
  const places = placesIn(
    lick,
    timeline,
    parts.some((p) => p.isDominant),
    range,
    weights,
  )
  const back = (there: Line): Line => shifted(there, -written.semitones)
  return {
    ...{ over: own.symbol, parts, serves },
    keys: keysInOrder('fourths', () => 0).map((semitones) => ({
      semitones,
      line: back(inKey(line, semitones, range)),
    })),
    places: places.map((p) => ({ ...p, line: back(p.line) })),
  }
}
