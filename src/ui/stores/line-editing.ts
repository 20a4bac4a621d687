import { atom } from 'nanostores'
import {
  displaceLine,
  holdNote,
  insertNote,
  type Line,
  midi,
  moveNote as moveInTime,
  movePitch,
  pitchOnStaff,
  readEntry,
  removeNote,
  type TextError,
  ticks,
  writeEntry,
} from '../../core/index.ts'
import { deskNow } from './actions.ts'
import { $kept } from './kept.ts'
import { hearWritten } from './line-hearing.ts'
import { $lineNotes, $lines, $taken, keepLine, lineBody, lineHere, notesOf, sounded } from './lines.ts'
import { say } from './notices.ts'
import { $place, go } from './place.ts'
import { type KeptNote, type LineRow, request } from './rows.ts'
import { startAt, tuneOf } from './scoring.ts'

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

const held = (id: string): string => `crossfade-line-${id}`

/** The line in view as it is edited: in concert pitch. */
const here = () => {
  const [place, kept] = [$place.get(), $kept.get()]
  const tune = place && kept && tuneOf(place, kept)
  if (!place || !kept || !tune) return null
  const row = lineHere(place, kept)
  const notes = row && notesOf(row, $lineNotes.get())
  if (!row || !notes) return null
  const line = sounded(notes)
  return { place, tune, row, line, current: Math.min(place.note, line.length - 1) }
}

const keptNotes = (line: Line): readonly KeptNote[] =>
  line.map(({ at, for: length, pitch }) => ({ at, for: length, pitch }))

const setRow = (row: LineRow): void => $lines.set(($lines.get() ?? []).map((r) => (r.id === row.id ? row : r)))

let saving: Promise<void> = Promise.resolve()
/** Lines with changes that are not sent yet: several in a row go together. */
const unsent = new Set<string>()

/** Sends a line as it now stands; what cannot be sent is held in this browser. */
const save = async (id: string): Promise<void> => {
  const row = $lines.get()?.find((r) => r.id === id)
  const text = JSON.stringify(row?.line)
  if (!row || !unsent.delete(id)) return
  const answer = await request<LineRow>('PUT', `lines/${id}`, lineBody(row))
  const now = $lines.get()?.find((r) => r.id === id)
  if (answer.ok) {
    localStorage.removeItem(held(id))
    if (now) setRow({ ...now, version: answer.value.version })
  } else if (answer.code === 'stale_version') {
    setRow(answer.current as LineRow)
    say('This line was changed elsewhere; it is shown as it is there.')
  } else {
    localStorage.setItem(held(id), text)
    say(`Not kept yet: ${answer.detail} The notes are held in this browser and sent with the next change.`)
  }
}

const send = (id: string): void => {
  unsent.add(id)
  saving = saving.then(() => save(id))
}

/** Shows changed notes at once and keeps them, one change after another. */
const change = (row: LineRow, line: Line, note: number): void => {
  setRow({ ...row, line: { notes: keptNotes(line) } })
  go({ note: Math.max(0, Math.min(line.length - 1, note)) })
  send(row.id)
}

/** Notes that a dead server kept from being kept, from an earlier visit; null where there are none. */
export const heldLine = (row: LineRow): LineRow['line'] | null => {
  const text = localStorage.getItem(held(row.id))
  return text === null || text === JSON.stringify(row.line) ? null : JSON.parse(text)
}
export const dropHeldLine = (row: LineRow): void => {
  localStorage.removeItem(held(row.id))
  setRow({ ...row })
}
export const putBackHeld = (row: LineRow): void => {
  const line = heldLine(row)
  if (!line) return
  setRow({ ...row, line })
  send(row.id)
}

/** Where the next note goes: after the note in view, else at the bar in view. */
const cursor = (now: NonNullable<ReturnType<typeof here>>): number => {
  const { line, current, tune, place } = now
  const note = line[current]
  return (
    $writing.get().at ?? (note ? note.at + note.for : startAt(tune, { from: 0, to: tune.timeline.length }, place.bar))
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
    hearWritten(tune, note.at, note.pitch)
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
  hearWritten(now.tune, at, pitch)
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
  const [timeline, desk] = [$taken.get()?.audit.timeline, deskNow()]
  if (!timeline || !desk) return
  putAt(tick, pitchOnStaff(letter, octave, tick, timeline).pitch - desk.instrument.written.semitones)
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
    change(row, movePitch(line, current, by), current)
    hearWritten(tune, note.at, note.pitch + by)
  } else if (edit === 'remove') change(row, removeNote(line, current), current - 1)
  else if (edit === 'earlier' || edit === 'later')
    change(row, moveInTime(line, current, edit === 'later' ? step : -step), current)
  else
    change(row, holdNote(line, current, edit === 'longer' ? note.for + step : Math.max(step, note.for - step)), current)
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
export const beginLine = async (): Promise<void> => {
  const bar = $place.get()?.bar ?? 1
  if (await keepLine(`Line over ${deskNow()?.title ?? ''}`.trim(), [], 0)) go({ write: true, bar, beat: 1 })
}
