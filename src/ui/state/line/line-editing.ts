import { atom } from 'nanostores'
import {
  displaceLine,
  holdNote,
  insertNote,
  type Line,
  midi,
  moveNote as moveInTime,
  movePitch,
  namedNotes,
  pitchOnStaff,
  readEntry,
  removeNote,
  type TextError,
  ticks,
  writeEntry,
} from '../../../core/index.ts'
import { $address, go } from '../address/address.ts'
import { $kept } from '../kept/kept.ts'
import type { LineRow } from '../kept/row-types.ts'
import { changeRow } from '../kept/rows.ts'
import { say } from '../page/notices.ts'
import { concertTune, startAt } from '../tune/concert.ts'
import { $openChart } from '../tune/open-chart.ts'
import { $lineAnalysis, $lineNotes, keepLine, lineHere, notesOf, sounded } from './lines.ts'

/** How the next note is written: its length in beats, and where it goes when not after the note in view. */
export interface Writing {
  readonly beats: number
  readonly at: number | null
  readonly error: TextError | null
}
export const $writing = atom<Writing>({ beats: 0.5, at: null, error: null })

/** Lengths to choose from, in beats. */
export const LENGTHS = [
  [4, 'four beats'],
  [2, 'two beats'],
  [1, 'a beat'],
  [0.5, 'half a beat'],
  [1 / 3, 'a third of a beat'],
  [0.25, 'a quarter of a beat'],
] as const

/** A pitch near which a new line begins: the middle of most horns, in concert pitch. */
const BEGIN = midi(67)

/** The line in view as it is edited: in concert pitch. */
const here = () => {
  const [address, kept] = [$address.get(), $kept.get()]
  const tune = address && kept && concertTune(address, kept)
  if (!address || !kept || !tune) return null
  const row = lineHere(address, kept)
  const notes = row && notesOf(row, $lineNotes.get())
  if (!row || !notes) return null
  const line = sounded(notes)
  return { address, tune, row, line, current: Math.min(address.note, line.length - 1) }
}

/** A note that was just written: its tick, and its pitch in concert. It is heard, unless the band plays. */
export const $written = atom<{ readonly at: number; readonly pitch: number } | null>(null)

/** So long after an edit it is sent. In milliseconds. */
const REST_MS = 120

/** Shows changed notes at once and keeps them. Edits of one `join` close to each other are undone together. */
const change = (row: LineRow, line: Line, note: number, join?: string): void => {
  changeRow('lines', row.id, { line: { notes: namedNotes(line) } }, { rest: REST_MS, ...(join ? { join } : {}) })
  go({ note: Math.max(0, Math.min(line.length - 1, note)) })
}

/** Where the next note goes: after the note in view, else at the bar in view. */
const cursor = (now: NonNullable<ReturnType<typeof here>>): number => {
  const { line, current, tune, address } = now
  const note = line[current]
  return (
    $writing.get().at ?? (note ? note.at + note.for : startAt(tune, { from: 0, to: tune.timeline.length }, address.bar))
  )
}

/** Writes what was typed; gives whether all of it was understood. */
export const typeInto = (text: string): boolean => {
  const now = here()
  if (!now) return false
  const { row, line, current, tune } = now
  const at = cursor(now)
  const words = readEntry(text)
  const { beats } = $writing.get()
  const { beat } = tune.timeline
  const entry = { line, at, length: Math.round(beats * beat), near: line[current]?.pitch ?? BEGIN }
  const written = words.ok ? writeEntry(entry, words.value, tune.timeline) : words
  if (!written.ok) {
    $writing.set({ ...$writing.get(), error: written.error })
    return false
  }
  const { line: after, at: end, length } = written.value
  const last = after.findLastIndex((n) => n.at < end)
  const note = after[last]
  const rests = note !== undefined && note.at + note.for !== end
  $writing.set({ beats: length / beat, at: rests || !note ? end : null, error: null })
  if (after !== line && note) {
    change(row, after, last)
    $written.set({ at: note.at, pitch: note.pitch })
  }
  return true
}

/** Writes one pitch, in concert: from a keyboard, a neck, a staff or an instrument. */
export const playInto = (pitch: number): void => {
  const now = here()
  if (!now) return
  const length = Math.round($writing.get().beats * now.tune.timeline.beat)
  const at = cursor(now)
  const line = insertNote(now.line, { at: ticks(at), for: ticks(length), pitch: midi(pitch) })
  $writing.set({ ...$writing.get(), at: null, error: null })
  change(
    now.row,
    line,
    line.findIndex((n) => n.at === at),
  )
  $written.set({ at, pitch })
}

/** Puts a pitch at a moment, brought to the length that is being written. */
const putAt = (tick: number, pitch: number): void => {
  const now = here()
  if (!now) return
  const length = Math.round($writing.get().beats * now.tune.timeline.beat)
  $writing.set({ ...$writing.get(), at: Math.max(0, Math.round(tick / length) * length) })
  playInto(pitch)
}

/** Puts a note where the staff was tapped, spelled as the home scale there has its letter; what is read there is written pitch. */
export const putOnStaff = (tick: number, letter: number, octave: number): void => {
  const [timeline, openChart] = [$lineAnalysis.get()?.audit.timeline, $openChart.get()]
  if (!timeline || !openChart) return
  putAt(tick, pitchOnStaff(letter, octave, tick, timeline).pitch - openChart.instrument.written.semitones)
}

export const setBeats = (beats: number): void => $writing.set({ ...$writing.get(), beats })
export const clearWriting = (): void => $writing.set({ ...$writing.get(), at: null, error: null })

/** One edit of the note in view, by its name. */
export type NoteEdit =
  | 'up'
  | 'down'
  | 'octave up'
  | 'octave down'
  | 'earlier'
  | 'later'
  | 'shorter'
  | 'longer'
  | 'remove'

const SEMITONES: Partial<Record<NoteEdit, number>> = { up: 1, down: -1, 'octave up': 12, 'octave down': -12 }

export const editNote = (edit: NoteEdit): void => {
  const now = here()
  const note = now?.line[now.current]
  if (!now || !note) return
  const { row, line, current, tune } = now
  const step = Math.round($writing.get().beats * tune.timeline.beat)
  const by = SEMITONES[edit]
  if (by !== undefined) {
    change(row, movePitch(line, current, by), current, `${edit} ${current}`)
    $written.set({ at: note.at, pitch: note.pitch + by })
  } else if (edit === 'remove') change(row, removeNote(line, current), current - 1)
  else if (edit === 'earlier' || edit === 'later')
    change(row, moveInTime(line, current, edit === 'later' ? step : -step), current, `${edit} ${current}`)
  else
    change(
      row,
      holdNote(line, current, edit === 'longer' ? note.for + step : Math.max(step, note.for - step)),
      current,
      `${edit} ${current}`,
    )
  $writing.set({ ...$writing.get(), at: null, error: null })
}

/** All of the line higher or lower by semitones, or earlier or later by beats. */
export const editLine = (by: { readonly semitones: number } | { readonly beats: number }): void => {
  const now = here()
  if (!now) return
  if ('semitones' in by) return change(now.row, movePitch(now.line, null, by.semitones), now.current)
  const moved = displaceLine(now.line, Math.round(by.beats * now.tune.timeline.beat))
  if (moved) change(now.row, moved, now.current)
  else say('It would begin before the chart does.')
}

/** A line without notes over the open chart, ready to be written into. */
export const beginLine = (): void => {
  const bar = $address.get()?.bar ?? 1
  if (keepLine(`Line over ${$openChart.get()?.title ?? ''}`.trim(), [], 0)) go({ write: true, bar, beat: 1 })
}
