import { atom, computed } from 'nanostores'
import {
  beatOf,
  type Grid,
  instrument,
  type Line,
  type LineAnalysis,
  type LineAsk,
  lineOf,
  midi,
  quantised,
  type School,
  spelledAs,
  ticks,
} from '../../../core/index.ts'
import { $address, type Address, go } from '../address/address.ts'
import { $kept, type Kept, sayKept } from '../kept/kept.ts'
import { rowsIn } from '../kept/lists.ts'
import { $opening, openingKey, openRow } from '../kept/opening.ts'
import { type Answer, answered, request } from '../kept/request.ts'
import type { KeptNote, LineRow } from '../kept/row-types.ts'
import { $rows, addRow, changeRow, removeRow } from '../kept/rows.ts'
import { settingsFrom } from '../kept/settings.ts'
import { say } from '../page/notices.ts'

/** The lines this page knows of, those changed last first. */
export const $lines = computed($rows.lines, (rows) => rowsIn<'lines'>(rows))

/** The notes of lines that are kept as files, by their row and version, as the server reads them. */
export const $lineNotes = atom<Readonly<Record<string, readonly KeptNote[] | null>>>({})

/** What a file holds, before anything is kept. */
export interface LookedInto {
  readonly notes: readonly KeptNote[]
  readonly voices: readonly {
    readonly track: number
    readonly channel: number
    readonly name: string
    readonly notes: number
    readonly low: number
    readonly high: number
    readonly course: readonly number[]
  }[]
  readonly chosen: number
  readonly leftOut: readonly { readonly what: string; readonly why: string }[]
  /** As it was played; empty where the source has a grid of its own. */
  readonly played: readonly KeptNote[]
}

/** A file that was dropped or pasted and is to be looked into as a line. */
export const $lineFile = atom<File | null>(null)

/** Looks into a file: a MIDI file, a tune, or a score. Nothing is kept. */
export const lookInto = (file: File, voice: number | null, grid: Grid): Promise<Answer<LookedInto>> => {
  const body = new FormData()
  body.set('file', file)
  const query = new URLSearchParams({ grid, ...(voice === null ? {} : { voice: String(voice) }) })
  return answered(() => fetch(`/api/v1/lines/read?${query}`, { method: 'POST', body }))
}

/** What is kept of a note. */
const keptNote = ({ at, for: length, pitch, name }: KeptNote): KeptNote => ({
  ...{ at, for: length, pitch },
  ...(name === undefined ? {} : { name }),
})

const movedBy = (notes: readonly KeptNote[], by: number): readonly KeptNote[] =>
  notes.map((n) => ({ ...keptNote(n), at: n.at + by })).filter((n) => n.at >= 0)

/** Keeps a line with the open chart, its first beat so many ticks into it, and shows it. Gives whether there is a chart. */
export const keepLine = (
  name: string,
  notes: readonly KeptNote[],
  from: number,
  played: readonly KeptNote[] | null = null,
): boolean => {
  const chart = $kept.get()?.chart
  if (!chart) return false
  const id = addRow('lines', {
    name,
    chartId: chart.id,
    text: null,
    line: { notes: movedBy(notes, from) },
    played: played && movedBy(played, from),
    ...{ tags: [], disputed: null, routeId: null },
  })
  go({ line: id, note: 0, bar: 1, beat: 1 })
  void sayKept('lines', id)
  return true
}

/** Changes a line, and says what was done. */
export const changeLine = (row: LineRow, change: Partial<LineRow>, done: string): void => {
  changeRow('lines', row.id, change)
  say(done, 'undo')
}

/** Moves a kept line in time: its first bar was another one. Nothing is pushed out over the beginning. */
export const moveLine = (row: LineRow, notes: readonly KeptNote[], by: number): void => {
  if (Math.min(...notes.map((n) => n.at)) + by < 0) return say('It would begin before the chart does.')
  const played = row.played && movedBy(row.played, by)
  changeLine(row, { line: { notes: movedBy(notes, by) }, played }, 'Moved.')
}

/** Brings a line to another grid, from how it was played; what was edited since is undone by it, and can be redone. */
export const quantiseLine = (row: LineRow, grid: Grid): void => {
  const raw = (row.played ?? []).flatMap((n) => (typeof n.pitch === 'number' ? [{ ...n, pitch: n.pitch }] : []))
  const notes = quantised(raw, grid).map(({ at, for: length, pitch }) => ({ at, for: length, pitch }))
  changeLine(row, { line: { notes } }, 'Brought to the grid.')
}

export const removeLine = async (row: LineRow): Promise<void> => {
  const gone = await removeRow('lines', row.id)
  if (!gone.ok) return say(`Not removed: ${gone.detail}`)
  go({ line: null, note: 0 })
  say('Removed.', 'undo')
}

const keyOf = (row: LineRow): string => `${row.id} ${row.version}`

/** Whether a row's notes can be read here: files, and pitches by name, are read by the server. */
const isPlain = (line: LineRow['line']): line is { readonly notes: readonly KeptNote[] } =>
  'notes' in line && line.notes.every((n) => typeof n.pitch === 'number')

/** A row's notes where they are known; others are asked of the server once. */
export const notesOf = (
  row: LineRow,
  known: Readonly<Record<string, readonly KeptNote[] | null>>,
): readonly KeptNote[] | null => (isPlain(row.line) ? row.line.notes : (known[keyOf(row)] ?? null))

export const fetchNotes = async (row: LineRow, text: string): Promise<void> => {
  if (isPlain(row.line) || $lineNotes.get()[keyOf(row)] !== undefined) return
  const answer = await request<{ notes: KeptNote[] }>('POST', 'lines/audit', { text, line: row.line })
  if (answer.ok) $lineNotes.set({ ...$lineNotes.get(), [keyOf(row)]: answer.value.notes })
  else say(`The line could not be read: ${answer.detail}`)
}

/** What is asked of a line: over the open chart, or over the text of its own; null where it has neither. */
export const lineAsk = (
  row: LineRow,
  notes: readonly KeptNote[],
  kept: Kept,
  beside: Partial<School> = {},
): LineAsk | null => {
  const isOpen = row.chartId !== null && row.chartId === kept.chart?.id
  const text = isOpen ? (kept.chart?.text ?? null) : row.text
  if (text === null) return null
  const settings = settingsFrom(kept.settings)
  return {
    text,
    overrides: isOpen ? (kept.chart?.overrides ?? null) : null,
    written: instrument(settings.instrument ?? 'concert').written,
    school: { ...settings.school, ...beside },
    weights: settings.weights,
    notes: sounded(notes),
  }
}

/** The lines over the open chart. */
export const linesOver = ({ chart }: Kept, all: readonly LineRow[]): readonly LineRow[] =>
  chart === null ? [] : all.filter((r) => r.chartId === chart.id)

/** The line in view: the one the address names, over the open chart or a text of its own, else the first over the chart. */
export const lineHere = (address: Address, kept: Kept, all: readonly LineRow[] = $lines.get()): LineRow | undefined => {
  if (kept.ownText) return kept.ownText
  const rows = linesOver(kept, all)
  return rows.find((r) => r.id === address.line) ?? rows[0]
}

/** Opens the line the address names where it is not known yet, and the chart it lies over where that is another one. */
export const startLines = (): void => {
  let asked: string | null = null
  let seen: string | null = null
  const look = (): void => {
    const address = $address.get()
    const id = address?.line ?? null
    if (address?.view !== 'line' || id === null) return
    const row = $rows.lines.get()[id]?.row
    if (row) seen = id
    // One that was there and is gone was removed, or its making was taken back.
    if (!row && seen === id) return go({ line: null, note: 0 })
    if (!row) {
      if (asked !== id) void openRow('lines', id)
      asked = id
    } else if (row.chartId !== null && row.chartId !== address.chart && !isGone(row.chartId))
      go({ chart: row.chartId, sketch: null })
  }
  look()
  $address.listen(look)
  $rows.lines.listen(look)
}
const isGone = (chartId: string): boolean => $opening.get()[openingKey('charts', chartId)]?.state === 'missing'

/** Sounding pitches of kept notes, where they are given as numbers. */
export const sounded = (notes: readonly KeptNote[]): Line =>
  lineOf(
    notes.flatMap((n) =>
      typeof n.pitch === 'number'
        ? [{ at: ticks(n.at), for: ticks(n.for), pitch: midi(n.pitch), ...spelledAs(n.name, n.pitch) }]
        : [],
    ),
  )

/** The line in view, taken apart: what the keys walk through. */
export const $lineAnalysis = atom<LineAnalysis | null>(null)

/** Shows a note, and its chord on the strip. */
export const goToNote = (note: number): void => {
  const n = $lineAnalysis.get()?.audit.notes[note]
  const spot = n?.sounding?.spot.spot
  go({ note, ...(spot ? { bar: spot.bar, beat: beatOf(spot) } : {}) })
}

/** One note on or back; tells whether the Line view is in sight. */
export const moveNote = (by: 1 | -1): boolean => {
  const address = $address.get()
  if (address?.view !== 'line') return false
  const last = ($lineAnalysis.get()?.audit.notes.length ?? 1) - 1
  goToNote(Math.max(0, Math.min(last, address.note + by)))
  return true
}

/** The first note over a chord of the strip, or -1. */
export const firstNoteAt = ({ audit }: LineAnalysis, bar: number, beat: number): number =>
  audit.notes.findIndex((n) => n.bar === bar && n.beat >= beat - 1e-6)
