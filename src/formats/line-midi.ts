import { parseMidi } from 'midi-file'
import { type Grid, ok, type Played, quantised, type Result, TICKS_PER_QUARTER } from '../core/index.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'
import { lowerLeftOut } from './played-bars.ts'
import { likeliest, listed, type ReadLine, tooMuch } from './voices.ts'

const DRUMS = 10

interface FoundVoice {
  readonly track: number
  /** From 1, as instruments count. */
  readonly channel: number
  readonly name: string
  readonly notes: readonly Played[]
}

type Track = ReturnType<typeof parseMidi>['tracks'][number]

/** A note that sounds. Where it was struck while it still sounded, the end of the stroke before is still owed. */
interface Sounding {
  readonly from: number
  owed: boolean
  /** An end that may have been the one owed. */
  end: number | null
}

/** The notes of one track by channel, in ticks of 960 a quarter; a note that never ends lasts to the next. */
const voicesOf = (track: Track, index: number, scale: number): readonly FoundVoice[] => {
  const channels = new Map<number, Played[]>()
  const open = new Map<string, Sounding>()
  const keep = (channel: number, pitch: number, { from }: Sounding, end: number): void => {
    const notes = channels.get(channel) ?? []
    if (end > from) notes.push({ at: from * scale, for: (end - from) * scale, pitch })
    channels.set(channel, notes)
  }
  let [at, name] = [0, '']
  for (const e of track) {
    at += e.deltaTime
    if (e.type === 'trackName' && 'text' in e) name = e.text.slice(0, 80)
    if (e.type !== 'noteOn' && e.type !== 'noteOff') continue
    const key = `${e.channel} ${e.noteNumber}`
    const sounding = open.get(key)
    const isStruck = e.type === 'noteOn' && e.velocity > 0
    if (sounding && !isStruck && sounding.owed) {
      sounding.owed = false
      sounding.end = at
      continue
    }
    if (sounding) keep(e.channel, e.noteNumber, sounding, isStruck ? (sounding.end ?? at) : at)
    open.delete(key)
    if (isStruck) open.set(key, { from: at, owed: sounding !== undefined && sounding.end === null, end: null })
  }
  for (const [key, sounding] of open) {
    const [channel = 0, pitch = 0] = key.split(' ').map(Number)
    if (sounding.end !== null) keep(channel, pitch, sounding, sounding.end)
  }
  return [...channels].map(([channel, notes]) => ({ track: index, channel: channel + 1, name, notes }))
}

/** Reads a line from a Standard MIDI File: the voice asked for, else the busiest high one; drums are left out. */
export const readMidiLine = (bytes: Uint8Array, voice: number | null, grid: Grid): Result<ReadLine, Refusal> => {
  let file: ReturnType<typeof parseMidi>
  try {
    file = parseMidi(bytes)
  } catch {
    return refuse('This is no MIDI file, or it is damaged.')
  }
  const { ticksPerBeat } = file.header
  if (!ticksPerBeat) return refuse('The file counts time in film frames, not in beats.')
  const scale = TICKS_PER_QUARTER / ticksPerBeat
  const all = file.tracks.flatMap((t, i) => voicesOf(t, i, scale))
  const voices = all.filter((v) => v.channel !== DRUMS)
  if (voices.length === 0) return refuse('The file has no notes besides drums.')
  for (const { notes } of voices) {
    const why = tooMuch(notes)
    if (why !== null) return refuse(why)
  }
  const own = ((voice !== null && voices[voice]) || likeliest(voices)) as FoundVoice
  const line = quantised(own.notes, grid)
  const leftOut: readonly LeftOut[] = [
    ...(all.length > voices.length ? [{ what: 'the drums', why: 'a line has pitches' }] : []),
    ...lowerLeftOut(own.notes.length - line.length),
    ...(voices.length > 1 ? [{ what: `${voices.length - 1} other voices`, why: 'one is read at a time' }] : []),
  ]
  return ok({ line, voices: voices.map(listed), chosen: voices.indexOf(own), leftOut, played: own.notes })
}
