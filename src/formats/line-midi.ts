import { type Grid, ok, type Played, quantised, type Result } from '../core/index.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'
import { type MidiTrackRead, midiIn } from './midi-file.ts'
import { lowerLeftOut } from './played-bars.ts'
import { likeliest, listed, type ReadLine, tooMuch } from './voices.ts'

const DRUMS = 10

/** The notes of one channel of a track. */
export interface FoundVoice {
  readonly track: number
  /** From 1, as instruments count. */
  readonly channel: number
  readonly name: string
  readonly notes: readonly Played[]
}

/** A note that sounds. Where it was struck while it still sounded, the end of the stroke before is still owed. */
interface Sounding {
  readonly from: number
  owed: boolean
  /** An end that may have been the one owed. */
  end: number | null
}

/** The notes of one track by channel, in ticks of 960 a quarter; a note that never ends lasts to the next. */
const voicesOf = (track: MidiTrackRead, index: number, scale: number): readonly FoundVoice[] => {
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

/** All that sounds in the tracks of a file, and of it what has pitches. */
export const voicesIn = (tracks: readonly MidiTrackRead[], scale: number) => {
  const all = tracks.flatMap((t, i) => voicesOf(t, i, scale))
  return { all, pitched: all.filter((v) => v.channel !== DRUMS) }
}

/** Reads a line from a Standard MIDI File: the voice asked for, else the busiest high one; drums are left out. */
export const readMidiLine = (bytes: Uint8Array, voice: number | null, grid: Grid): Result<ReadLine, Refusal> => {
  const opened = midiIn(bytes)
  if (!opened.ok) return opened
  const { all, pitched: voices } = voicesIn(opened.value.file.tracks, opened.value.scale)
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
