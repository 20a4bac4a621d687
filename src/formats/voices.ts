import { type Line, type LineNote, lineOf, MOST, ok, type Played, printCount, type Result } from '../core/index.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'

/** One voice of a file, as it is listed: `track` from 0 and `channel` from 1 tell where it stands, `low` and `high` are MIDI numbers. */
export interface Voice {
  readonly track: number
  readonly channel: number
  readonly name: string
  readonly notes: number
  readonly low: number
  readonly high: number
  /** Its course for a small picture: MIDI numbers, from left to right. */
  readonly course: readonly number[]
}

/** A voice with its notes, and what of it is left out. */
export interface VoiceNotes {
  readonly track: number
  readonly channel: number
  readonly name: string
  readonly notes: readonly LineNote[]
  readonly leftOut: readonly LeftOut[]
}

/** A line read from a file, the voices there were to choose from, which of them it is, and what in the file a line cannot hold. */
export interface ReadLine {
  readonly line: Line
  readonly voices: readonly Voice[]
  readonly chosen: number
  readonly leftOut: readonly LeftOut[]
  /** The notes of the line as they were played; empty where the source has a grid of its own. */
  readonly played: readonly Played[]
}

const SUNG = /melod|lead|vocal|voice|tune|theme|solo|head/i
/** A voice named for the melody is one if it has so much of what the busiest plays. */
const ENOUGH = 0.25

/** How many notes of each voice have none above them while they begin. */
const onTop = (voices: readonly (readonly Played[])[]): readonly number[] => {
  const next = voices.map(() => 0)
  const sounding: (Played | undefined)[] = voices.map(() => undefined)
  const tops = voices.map(() => 0)
  const all = voices.flatMap((notes, voice) => notes.map((n) => ({ n, voice }))).sort((a, b) => a.n.at - b.n.at)
  for (const { n, voice } of all) {
    for (const [v, notes] of voices.entries())
      for (let k = next[v] as number; k < notes.length && (notes[k] as Played).at <= n.at; k++) {
        sounding[v] = notes[k]
        next[v] = k + 1
      }
    const above = sounding.some((s, v) => v !== voice && s && s.at + s.for > n.at && s.pitch > n.pitch)
    if (!above) tops[voice] = (tops[voice] as number) + 1
  }
  return tops
}

/** The voice a listener would sing back: one that is named so, else the one that is on top most of the time. */
export const likeliest = <V extends { readonly name: string; readonly notes: readonly Played[] }>(
  voices: readonly V[],
): V | undefined => {
  const busiest = Math.max(...voices.map((v) => v.notes.length))
  const named = voices.filter((v) => SUNG.test(v.name) && v.notes.length >= busiest * ENOUGH)
  const among = named.length > 0 ? named : voices
  const tops = onTop(among.map((v) => v.notes))
  return among[tops.indexOf(Math.max(...tops))]
}

const COURSE = 48
/** The course of a voice in at most so many places. */
const courseOf = (notes: readonly Played[]): readonly number[] =>
  Array.from(
    { length: Math.min(COURSE, notes.length) },
    (_, i) => notes[Math.floor((i * notes.length) / Math.min(COURSE, notes.length))]?.pitch ?? 0,
  )

/** A voice as it is listed. */
export const listed = ({
  track,
  channel,
  name,
  notes,
}: Omit<VoiceNotes, 'leftOut' | 'notes'> & { readonly notes: readonly Played[] }): Voice => {
  let [low, high] = [127, 0]
  for (const n of notes) [low, high] = [Math.min(low, n.pitch), Math.max(high, n.pitch)]
  return { track, channel, name, notes: notes.length, low, high, course: courseOf(notes) }
}

/** Why notes make no line, in words; null where they do. */
export const tooMuch = (notes: readonly Played[]): string | null => {
  if (notes.length > MOST.notes) return `It has more than ${printCount(MOST.notes)} notes.`
  if (!notes.every((n) => n.at >= 0 && n.at + n.for <= MOST.ticks))
    return `It goes on for more than ${printCount(MOST.bars)} bars.`
  return notes.some((n) => n.pitch < 0 || n.pitch > 127) ? 'It has notes no instrument plays.' : null
}

/** The line a file holds: the voice asked for, else the likeliest of some; the others are said. */
export const lineOfVoices = (
  found: readonly VoiceNotes[],
  asked: number | null,
  among: (voice: VoiceNotes) => boolean = () => true,
): Result<ReadLine, Refusal> => {
  const voices = found.filter((v) => v.notes.length > 0)
  if (voices.length === 0) return refuse('It has no notes.')
  const byEar = likeliest(voices.filter((v) => among(v) && tooMuch(v.notes) === null))
  const own = ((asked !== null && voices[asked]) || byEar || voices[0]) as VoiceNotes
  const why = tooMuch(own.notes)
  if (why !== null) return refuse(why)
  const line = lineOf(own.notes)
  const others = voices.filter((v) => v !== own)
  return ok({
    line,
    voices: voices.map(listed),
    chosen: voices.indexOf(own),
    played: [],
    leftOut: [...own.leftOut, ...others.map((v) => ({ what: voiceWords(v), why: 'a line is one voice' }))],
  })
}

const voiceWords = ({ name, notes }: VoiceNotes): string =>
  `${name === '' ? 'another voice' : name} (${notes.length} ${notes.length === 1 ? 'note' : 'notes'})`
