import { type Midi, midi, ticks } from '../pitch/units.ts'
import { endOf, type Line, type LineNote, lineOf } from './line.ts'

const LOWEST = 12
const HIGHEST = 120

/** Puts a note into a line: what began within its time gives way, what still sounds when it begins ends there. */
export const insertNote = (line: Line, note: LineNote): Line => {
  const end = endOf(note)
  const rest = line.flatMap((n): readonly LineNote[] => {
    if (n.at >= note.at && n.at < end) return []
    return n.at < note.at && endOf(n) > note.at ? [{ ...n, for: ticks(note.at - n.at) }] : [n]
  })
  return lineOf([...rest, note])
}

export const removeNote = (line: Line, at: number): Line => line.filter((_, i) => i !== at)

const inRange = (pitch: number): Midi => midi(Math.max(LOWEST, Math.min(HIGHEST, pitch)))

/** Moves one note, or (null) all of them, by semitones. A spelling that was given is not kept. */
export const movePitch = (line: Line, at: number | null, by: number): Line =>
  line.map((n, i) => (at === null || i === at ? { at: n.at, for: n.for, pitch: inRange(n.pitch + by) } : n))

/** Moves one note in time, between the note before and the one after; the note before is shortened where it reached over. */
export const moveNote = (line: Line, at: number, by: number): Line => {
  const note = line[at]
  if (!note) return line
  const least = (line[at - 1]?.at ?? -1) + 1
  const most = (line[at + 1]?.at ?? Infinity) - 1
  const to = Math.max(least, Math.min(most, note.at + by))
  return line.map((n, i) => {
    if (i === at) return { ...n, at: ticks(to), for: ticks(Math.min(n.for, (line[at + 1]?.at ?? Infinity) - to)) }
    return i === at - 1 && endOf(n) > to ? { ...n, for: ticks(to - n.at) } : n
  })
}

/** Gives a note another length, up to the next one. */
export const holdNote = (line: Line, at: number, length: number): Line =>
  line.map((n, i) => {
    const most = (line[at + 1]?.at ?? Infinity) - n.at
    return i === at ? { ...n, for: ticks(Math.max(1, Math.min(most, length))) } : n
  })

/** All of it earlier or later; null where it would begin before the chart does. */
export const displaceLine = (line: Line, by: number): Line | null =>
  line.every((n) => n.at + by >= 0) ? line.map((n) => ({ ...n, at: ticks(n.at + by) })) : null
