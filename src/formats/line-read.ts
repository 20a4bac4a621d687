import {
  type Line,
  type LineNote,
  lineOf,
  MOST,
  midi,
  ok,
  pitchOn,
  printCount,
  type Result,
  readNote,
  TICKS_PER_QUARTER,
  ticks,
} from '../core/index.ts'
import { tunesIn } from './abc-tune.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'
import { alterSign } from './musicxml-chords.ts'
import { all, attribute, inside, type Node, nameOf, number, one, scoreIn, shiftOf, text } from './xml.ts'

/** A line read from a file, and what in the file a line cannot hold. */
export interface ReadLine {
  readonly line: Line
  readonly leftOut: readonly LeftOut[]
}

const WHOLE = 4 * TICKS_PER_QUARTER

interface AbcSound {
  readonly cmd: string
  readonly pitch?: number
  readonly start?: number
  readonly duration?: number
}
interface AbcTune {
  readonly setUpAudio: (options: object) => { readonly tracks: readonly (readonly AbcSound[])[] }
}

/** Reads the notes of an ABC tune: its first tune, its first voice, repeats played out, the top note of each chord. */
export const readAbcLine = async (source: string): Promise<Result<ReadLine, Refusal>> => {
  const tunes = await tunesIn<AbcTune>(source)
  if (!tunes.ok) return tunes
  let tracks: readonly (readonly AbcSound[])[]
  try {
    tracks = tunes.value[0]?.setUpAudio({ chordsOff: true }).tracks ?? []
  } catch {
    return refuse('The tune cannot be played.')
  }
  const notes = (tracks[0] ?? []).flatMap((s): readonly LineNote[] =>
    s.cmd === 'note' && s.pitch !== undefined && s.start !== undefined && s.duration !== undefined
      ? [{ at: ticks(s.start * WHOLE), for: ticks(s.duration * WHOLE), pitch: midi(s.pitch) }]
      : [],
  )
  return bounded(
    notes,
    tracks.slice(1).map((_, i) => ({ what: `voice ${i + 2}`, why: 'a line is one voice' })),
  )
}

const bounded = (notes: readonly LineNote[], leftOut: readonly LeftOut[]): Result<ReadLine, Refusal> => {
  if (notes.length === 0) return refuse('It has no notes.')
  if (notes.length > MOST.notes) return refuse(`It has more than ${printCount(MOST.notes)} notes.`)
  if (!notes.every((n) => n.at >= 0 && n.at + n.for <= MOST.ticks))
    return refuse(`It goes on for more than ${printCount(MOST.bars)} bars.`)
  if (notes.some((n) => n.pitch < 0 || n.pitch > 127)) return refuse('It has notes no instrument plays.')
  const line = lineOf(notes)
  const lost = notes.length - line.length
  return ok({
    line,
    leftOut:
      lost > 0
        ? [...leftOut, { what: `${lost} lower notes`, why: 'of notes that begin together the highest is the line' }]
        : leftOut,
  })
}

/** The voice of a part that has most notes. */
const mainVoice = (part: Node): string => {
  const counts = new Map<string, number>()
  for (const n of all(part, 'measure').flatMap((m) => all(m, 'note')))
    if (one(n, 'pitch')) counts.set(text(n, 'voice'), (counts.get(text(n, 'voice')) ?? 0) + 1)
  return [...counts].sort(([, a], [, b]) => b - a)[0]?.[0] ?? ''
}

interface Where {
  at: number
  divisions: number
}

/** One note of a measure; moves on. Null for rests, grace notes, other voices. */
const noteOf = (node: Node, where: Where, voice: string, shift: number): { note: LineNote; tied: boolean } | null => {
  const duration = (number(text(node, 'duration')) * TICKS_PER_QUARTER) / where.divisions
  const inChord = all(node, 'chord').length > 0
  const from = inChord ? where.at - duration : where.at
  if (!inChord && all(node, 'grace').length === 0) where.at += duration
  const pitch = one(node, 'pitch')
  if (!pitch || all(node, 'grace').length > 0 || text(node, 'voice') !== voice) return null
  const read = readNote(text(pitch, 'step') + alterSign(number(text(pitch, 'alter'))), 0)
  if (!read.ok) return null
  const sounding = pitchOn(read.value.note, number(text(pitch, 'octave'))).pitch + shift
  const tied = all(node, 'tie').some((t) => attribute(t, 'type') === 'stop')
  const spelled = shift === 0 ? { note: read.value.note } : {}
  return { note: { at: ticks(from), for: ticks(duration), pitch: midi(sounding), ...spelled }, tied }
}

/** Reads the notes of a MusicXML score: its first part with notes, that part's main voice, in concert pitch. */
export const readMusicXmlLine = (source: string): Result<ReadLine, Refusal> => {
  const score = scoreIn(source)
  if (!score.ok) return score
  const parts = all(score.value, 'part')
  const sounding = parts.filter((p) => all(p, 'measure').some((m) => all(m, 'note').some((n) => one(n, 'pitch'))))
  const [part] = sounding
  if (!part) return refuse('The score has no notes.')
  const { semitones } = shiftOf(part)
  const octaves = all(part, 'measure')
    .flatMap((m) => all(m, 'attributes'))
    .map((a) => number(text(a, 'transpose', 'octave-change')))
    .find((n) => n !== 0)
  const shift = semitones + 12 * (octaves ?? 0)
  const voice = mainVoice(part)
  const where: Where = { at: 0, divisions: 1 }
  const notes: LineNote[] = []
  /** Where the latest note of each pitch stands. */
  const latest = new Map<number, number>()
  let [grace, top] = [0, 0]
  for (const measure of all(part, 'measure')) {
    const start = where.at
    let longest = start
    for (const node of inside(measure)) {
      const moved = (number(text(node, 'duration')) * TICKS_PER_QUARTER) / where.divisions
      switch (nameOf(node)) {
        case 'attributes':
          where.divisions = Math.max(1, number(text(node, 'divisions'), where.divisions))
          break
        case 'backup':
          where.at = Math.max(start, where.at - moved)
          break
        case 'forward':
          where.at += moved
          break
        case 'note': {
          grace += all(node, 'grace').length
          const found = noteOf(node, where, voice, shift)
          const inChord = all(node, 'chord').length > 0
          // Under a tied note the rest of its chord begins anew; it is still no line.
          if (found && inChord && found.note.pitch < top) break
          if (found) top = inChord ? Math.max(top, found.note.pitch) : found.note.pitch
          const open = found?.tied ? latest.get(found.note.pitch) : undefined
          const before = open === undefined ? undefined : notes[open]
          if (found && open !== undefined && before)
            notes[open] = { ...before, for: ticks(found.note.at + found.note.for - before.at) }
          else if (found) latest.set(found.note.pitch, notes.push(found.note) - 1)
        }
      }
      longest = Math.max(longest, where.at)
    }
    where.at = longest
  }
  return bounded(notes, [
    ...(grace > 0 ? [{ what: `${grace} grace notes`, why: 'they take no time of their own' }] : []),
    ...sounding.slice(1).map((_, i) => ({ what: `part ${i + 2}`, why: 'a line is one voice' })),
  ])
}
