import { atom } from 'nanostores'
import {
  type Grid,
  instrument,
  type Line,
  type LineAsk,
  lineOf,
  midi,
  quantised,
  type School,
  type Taken,
  ticks,
} from '../../core/index.ts'
import { $kept, type Kept } from './kept.ts'
import { keptList } from './kept-list.ts'
import { say } from './notices.ts'
import { $place, go, type Place } from './place.ts'
import { type Answer, answered, type KeptNote, type LineRow, request } from './rows.ts'
import { settingsFrom } from './settings.ts'

const list = keptList<LineRow>('lines')
const { told } = list
/** The lines kept lately, of any chart. */
export const { $rows: $lines, $failed: $linesFailed, refresh: refreshLines } = list

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
  }[]
  readonly chosen: number
  readonly leftOut: readonly { readonly what: string; readonly why: string }[]
  /** As it was played; empty where the source has a grid of its own. */
  readonly played: readonly KeptNote[]
}

/** Looks into a file: a MIDI file, a tune, or a score. Nothing is kept. */
export const lookInto = (file: File, voice: number | null, grid: Grid): Promise<Answer<LookedInto>> => {
  const body = new FormData()
  body.set('file', file)
  const query = new URLSearchParams({ grid, ...(voice === null ? {} : { voice: String(voice) }) })
  return answered(() => fetch(`/api/v1/lines/read?${query}`, { method: 'POST', body }))
}

const movedBy = (notes: readonly KeptNote[], by: number): readonly KeptNote[] =>
  notes.map(({ at, for: length, pitch }) => ({ at: at + by, for: length, pitch })).filter((n) => n.at >= 0)

/** Keeps a line with the open chart, its first beat so many ticks into it. */
export const keepLine = async (
  name: string,
  notes: readonly KeptNote[],
  from: number,
  played: readonly KeptNote[] | null = null,
): Promise<boolean> => {
  const chart = $kept.get()?.chart
  if (!chart) return false
  const row = {
    name,
    chartId: chart.id,
    line: { notes: movedBy(notes, from) },
    played: played && movedBy(played, from),
    tags: [],
  }
  const answer = await request<LineRow>('POST', 'lines', row)
  const done = await told(answer, 'Kept.', 'Not kept')
  if (answer.ok) go({ line: answer.value.id, note: 0, bar: 1, beat: 1 })
  return done
}

/** A row as it is sent back, with what has changed in it. */
export const lineBody = (row: LineRow, change: Partial<LineRow> = {}) => {
  const { name, chartId, text, line, tags, disputed, played, routeId, version } = { ...row, ...change }
  return { name, chartId, text, line, tags, disputed, played, routeId, version }
}

/** Keeps a change to a line, and says how it went. */
export const changeLine = async (
  row: LineRow,
  change: Partial<LineRow>,
  done: string,
  failed: string,
): Promise<boolean> => told(await request('PUT', `lines/${row.id}`, lineBody(row, change)), done, failed)

/** Moves a kept line in time: its first bar was another one. Nothing is pushed out over the beginning. */
export const moveLine = async (row: LineRow, notes: readonly KeptNote[], by: number): Promise<void> => {
  if (Math.min(...notes.map((n) => n.at)) + by < 0) return say('It would begin before the chart does.')
  const played = row.played && movedBy(row.played, by)
  await changeLine(row, { line: { notes: movedBy(notes, by) }, played }, 'Moved.', 'Not moved')
}

/** Brings a line to another grid, from how it was played; what was edited since is undone by it, and can be redone. */
export const quantiseLine = (row: LineRow, grid: Grid): Promise<boolean> => {
  const raw = (row.played ?? []).flatMap((n) => (typeof n.pitch === 'number' ? [{ ...n, pitch: n.pitch }] : []))
  const notes = quantised(raw, grid).map(({ at, for: length, pitch }) => ({ at, for: length, pitch }))
  return changeLine(row, { line: { notes } }, 'Brought to the grid.', 'Not changed')
}

export const renameLine = async (row: LineRow, name: string): Promise<void> => {
  if (name.trim() === '' || name === row.name) return
  await changeLine(row, { name }, 'Renamed.', 'Not renamed')
}

export const removeLine = async (row: LineRow): Promise<void> => {
  if (await told(await request('DELETE', `lines/${row.id}`), 'Removed.', 'Not removed')) go({ line: null, note: 0 })
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
    said: isOpen ? (kept.chart?.overrides ?? null) : null,
    written: instrument(settings.instrument ?? 'concert').written,
    school: { ...settings.school, ...beside },
    weights: settings.weights,
    notes: sounded(notes),
  }
}

/** The line in view among those over the open chart: the one asked for, else the first. */
export const lineHere = (place: Place, kept: Kept): LineRow | undefined => {
  const rows = ($lines.get() ?? []).filter((r) => r.chartId === kept.chart?.id)
  return rows.find((r) => r.id === place.line) ?? rows[0]
}

/** Sounding pitches of kept notes, where they are given as numbers. */
export const sounded = (notes: readonly KeptNote[]): Line =>
  lineOf(
    notes.flatMap((n) =>
      typeof n.pitch === 'number' ? [{ at: ticks(n.at), for: ticks(n.for), pitch: midi(n.pitch) }] : [],
    ),
  )

/** The line in view, taken apart: what the keys walk through. */
export const $taken = atom<Taken | null>(null)

/** Shows a note, and its chord on the strip. */
export const goToNote = (note: number): void => {
  const n = $taken.get()?.audit.notes[note]
  const spot = n?.sounding?.spot.spot
  const beat = spot && n.sounding ? 1 + spot.at / ($taken.get()?.audit.timeline.beat ?? 1) : 1
  go({ note, ...(spot ? { bar: spot.bar, beat } : {}) })
}

/** One note on or back; tells whether the Line view is in sight. */
export const moveNote = (by: 1 | -1): boolean => {
  const place = $place.get()
  if (place?.view !== 'line') return false
  const last = ($taken.get()?.audit.notes.length ?? 1) - 1
  goToNote(Math.max(0, Math.min(last, place.note + by)))
  return true
}

/** The first note over a chord of the strip, or -1. */
export const firstNoteAt = ({ audit }: Taken, bar: number, beat: number): number =>
  audit.notes.findIndex((n) => n.bar === bar && n.beat >= beat - 1e-6)
