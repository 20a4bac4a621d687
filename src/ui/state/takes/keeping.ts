import {
  formOf,
  type Grade,
  type HeardNote,
  inChart,
  type Overlay,
  readTune,
  reverse,
  type Span,
  type TakeReading,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import type { TakeRead } from '../../../workers/start.ts'
import { go } from '../address/address.ts'
import { keepIdea, sayKept } from '../kept/kept.ts'
import type { KeptNote, TakeRow } from '../kept/row-types.ts'
import { addRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { $openChart } from '../tune/open-chart.ts'

/** Where a moment of a take stands in one chorus of its chart. */
const placeIn = (row: TakeRow): ((at: number) => number) => {
  const read = readTune(row.text, row.overrides)
  const form = read.ok ? formOf(read.value, row.bars) : null
  if (!read.ok || !form) return (at) => at
  const placed = inChart(read.value, form)
  return (at) => {
    const there = placed(at) % read.value.timeline.length
    return there < 0 ? there + read.value.timeline.length : there
  }
}

const within = (notes: readonly HeardNote[], { from, to }: Span): readonly HeardNote[] =>
  notes.filter((n) => n.at >= from && n.at < to)

/** Keeps some of a take as a line, on the grid, with its notes as they were played. */
export const keepPart = async (row: TakeRow, { reading }: TakeRead, part: Span): Promise<void> => {
  const back = reverse($openChart.get()?.instrument.written ?? { letters: 0, semitones: 0 })
  const notes = within(reading.audit.notes, part)
  const [first, last] = [notes[0], notes.at(-1)]
  if (!first || !last) return say('Nothing was played there.')
  const place = placeIn(row)
  const start = place(first.at)
  const line = notes.map(
    (n): KeptNote => ({ at: start + n.at - first.at, for: n.for, pitch: n.pitch + back.semitones }),
  )
  const timing = reading.timing.notes
  const played = notes.map((n, i): KeptNote => {
    const at = Math.round((timing[n.n]?.at ?? n.at) - first.at + start)
    return { at: Math.max(0, at), for: n.for, pitch: line[i]?.pitch ?? n.pitch }
  })
  const bars = first.bar === last.bar ? `bar ${first.bar}` : `bars ${first.bar}-${last.bar}`
  const id = addRow('lines', {
    ...{ name: `${row.name}, ${bars}`, chartId: row.chartId, text: row.chartId === null ? row.text : null },
    ...{ line: { notes: line }, tags: ['take'], disputed: null, played, routeId: null },
  })
  if (await sayKept('lines', id)) go({ line: id })
}

/** Of what was heard in some bars, the overlay that most of it is. */
const overlayIn = (
  { audit }: TakeReading,
  part: Span,
): { readonly overlay: Overlay; readonly note: HeardNote } | null => {
  const cells = audit.cells.flatMap((c) => {
    const note = audit.notes[c.from]
    const last = audit.notes[c.to]
    return c.overlay && note && last && last.at >= part.from && note.at < part.to && note.sounding?.place
      ? [{ overlay: c.overlay, note, size: c.to - c.from }]
      : []
  })
  const away = cells.filter((c) => audit.notes[c.note.n]?.role !== 'chord' || c.size > 3)
  return [...(away.length > 0 ? away : cells)].sort((a, b) => b.size - a.size)[0] ?? null
}

/** Keeps what was played somewhere as an idea: its overlay over its chord, with its place. */
export const keepIdeaOf = async (row: TakeRow, { reading }: TakeRead, part: Span): Promise<void> => {
  const found = overlayIn(reading, part)
  const place = found?.note.sounding?.place
  if (!found || !place) return say('No overlay is heard there.')
  const back = reverse($openChart.get()?.instrument.written ?? { letters: 0, semitones: 0 })
  const overlay = transposeOverlay(found.overlay, back).name
  const chord = transposeChord(place.chord, back).symbol
  const next = place.next ? transposeChord(place.next, back).symbol : null
  const { bar, beat } = found.note
  await keepIdea({ overlay, chord, next, chartId: row.chartId, bar, beat: Math.max(1, Math.floor(beat)) })
  say(toGlyphs(`Kept: ${overlay} over ${chord}.`), 'undo')
}

const GRAVE: ReadonlySet<string> = new Set(['overstay', 'missed step', 'no landing', 'inside', 'silence'])

/** What a take would be graded as a round: by what is to mend, gravely or not. */
export const proposedGrade = ({ sentences }: TakeReading): Grade => {
  const faults = sentences.filter((s) => s.tone === 'fault')
  const grave = faults.filter((s) => GRAVE.has(s.about)).length
  if (grave > 1) return 'again'
  if (grave === 1 || faults.length > 1) return 'hard'
  return faults.length === 1 ? 'clean' : 'easy'
}

/** Puts a take into the log, with the grade the player gives it. */
export const gradeTake = (row: TakeRow, grade: Grade): void => {
  const last = row.notes.at(-1)
  const read = readTune(row.text, row.overrides)
  const beat = read.ok ? read.value.timeline.beat : 960
  const minutes = last ? Math.round(((last.at + last.for) / beat / row.tempo) * 100) / 100 : 0
  const id = addRow('log', {
    ...{ at: new Date().toISOString(), kind: 'take', itemId: row.itemId, key: row.key, tempo: row.tempo, grade },
    ...{ minutes, text: row.name, answered: null },
  })
  void sayKept('log', id)
}
