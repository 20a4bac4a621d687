import {
  DEFAULT_WEIGHTS,
  formOf,
  inChart,
  type KeptOverride,
  type KeptPlan,
  msPerTick,
  type Override,
  type PlayedNote,
  readOverlay,
  readOverrides,
  readTakeOver,
  type School,
  type TakeReading,
  type TakeValues,
  ticks,
  tuneOf,
  type Weights,
} from '../core/index.ts'
import { writeLine } from '../formats/line-write.ts'
import { midiFile } from '../formats/write-midi.ts'
import { auditTold, pitchAt } from './lines.ts'
import { fieldProblem } from './problems.ts'
import { PARTS } from './queries.ts'
import { getRow, type Row, updateRow } from './rows.ts'
import type { Database } from './sql.ts'
import { chartAt, noBar, orProblem } from './texts.ts'

/** A take as it is sent; pitches by MIDI number or by name. */
export interface TakeAsked {
  readonly text: string
  readonly key: string
  readonly notes: readonly (Omit<PlayedNote, 'pitch'> & { readonly pitch: number | string })[]
  readonly plan: KeptPlan | null
  readonly bars: TakeValues['bars']
  readonly tempo: number
  readonly offset: number
  readonly overrides: readonly Override[]
  readonly school: School
  readonly weights: Weights
}

const hundredth = (n: number): number => Math.round(n * 100) / 100
const tenth = (n: number): number => Math.round(n * 10) / 10
const share = (n: number | null): number | null => (n === null ? null : hundredth(n))

const stepTold = ({ bar, beat, chord, overlay, chorus, ...s }: TakeReading['steps'][number]) => ({
  ...{ bar, beat, chord, overlay: overlay?.name ?? null, chorus },
  ...{ inPlan: share(s.inPlan), inHome: share(s.inHome), fade: s.fade, wished: s.wished },
})

/** Notes of a take by MIDI number. */
export const playedNotes = (notes: TakeAsked['notes'], path: string): readonly PlayedNote[] =>
  notes.map((n, i) => ({ ...n, pitch: pitchAt(n.pitch, `${path}.${i}.pitch`).pitch }))

/** A take read, as the interface answers it. Notes of the audit are counted from 1, where they stand on the grid. */
export const takeAnswer = (asked: TakeAsked) => {
  const tune = tuneOf(chartAt(asked.text, asked.key), asked.overrides, { school: asked.school })
  const notes = playedNotes(asked.notes, 'notes')
  if (notes.length === 0) throw fieldProblem('notes', 'The take has no notes.', '', ['at least one note'])
  for (const [i, { overlay }] of (asked.plan?.overlays ?? []).entries())
    if (overlay !== null) orProblem(`plan.overlays.${i}.overlay`, readOverlay(overlay))
  const read = readTakeOver(tune, { ...asked, notes }, asked)
  if (!read.ok) {
    const { path, bar, first, last } = read.error
    throw noBar(path, bar, first, last)
  }
  const reading = read.value
  const ms = msPerTick(tune.timeline, asked.tempo)
  return {
    audit: auditTold(reading.audit, asked.school),
    plan: { steps: reading.steps.map(stepTold) },
    timing: {
      ...{ mean: tenth(reading.time.mean), spread: tenth(reading.time.spread), swing: reading.timing.swing },
      notes: reading.timing.notes.map(({ at, written, off }) => ({ at, written, off: tenth(off * ms) })),
    },
    sentences: reading.sentences.map(({ text, bars, tone, about }) => ({ text, bars, tone, about })),
  }
}

/** A kept take as the core reads it; its text and its bars were checked when it was kept. */
const keptTake = (row: Readonly<Record<string, unknown>>, school: School) => {
  const overrides = readOverrides((row.overrides ?? null) as readonly KeptOverride[] | null)
  const tune = tuneOf(chartAt(String(row.text), ''), overrides, { school })
  const notes = playedNotes(row.notes as TakeAsked['notes'], 'notes')
  const bars = row.bars as TakeValues['bars']
  return { tune, form: formOf(tune, bars), values: { ...(row as unknown as TakeValues), notes, bars } }
}

/** A take as a file: as it was played, or brought to the grid over its chart. */
export const takeFile = (row: Readonly<Record<string, unknown>>, as: 'midi' | 'musicxml', school: School) => {
  const { tune, form, values } = keptTake(row, school)
  const read = readTakeOver(tune, { ...values, plan: null }, { school, weights: DEFAULT_WEIGHTS })
  if (!read.ok || !form || values.notes.length === 0)
    throw fieldProblem('as', 'There is nothing to write: the take has no notes.', as, ['a take with notes'])
  const placed = inChart(tune, form)
  if (as === 'midi') {
    const played = values.notes.map((n) => ({
      ...{ at: Math.max(0, Math.round(placed(n.at))), for: Math.max(1, Math.round(n.for)), pitch: n.pitch },
      loudness: Math.min(1, n.velocity ?? USUAL_LOUDNESS),
    }))
    return midiFile(tune.chart, values.tempo, [{ name: String(row.name), channel: 0, program: null, notes: played }])
  }
  const line = read.value.line.map((n) => ({ ...n, at: ticks(Math.max(0, placed(n.at))) }))
  const written = writeLine(String(row.name), line, tune.chart, 'musicxml', null)
  if (!written.ok) throw fieldProblem('as', written.error.why, as)
  return written.value
}
const USUAL_LOUDNESS = 0.7

/** Keeps a part of a take that is being played; the same part sent again is the same part. */
export const addPart = async (db: Database, id: string, n: number, notes: readonly object[]) => {
  await getRow(db, 'takes', id)
  await db.query(PARTS.add, [id, n, JSON.stringify(notes)])
  return { id, n }
}

/** A take of which nothing has come for so long was cut off. */
const CUT_OFF = '15 seconds'

/** Ends takes that were cut off, with every part that had come. */
export const recoverTakes = async (db: Database): Promise<{ readonly takes: readonly Row[] }> => {
  const cut = await db.query<{ id: string }>(PARTS.cutOff, [CUT_OFF])
  const takes: Row[] = []
  for (const { id } of cut) {
    const row = await getRow(db, 'takes', id)
    const parts = await db.query<{ notes: readonly object[] }>(PARTS.of, [id])
    const notes = [...(row.notes as readonly object[]), ...parts.flatMap((p) => p.notes)]
    takes.push(await updateRow(db, 'takes', id, row.version, { ...row, notes, open: false }, `take ${id}`))
  }
  await db.query(PARTS.dropEnded)
  return { takes }
}
