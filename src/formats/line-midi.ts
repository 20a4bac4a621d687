import { parseMidi } from 'midi-file'
import {
  type Grid,
  type Line,
  MOST,
  ok,
  type Played,
  printCount,
  quantised,
  type Result,
  TICKS_PER_QUARTER,
} from '../core/index.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'

/** One voice of a file: a track's notes on one channel. */
export interface MidiVoice {
  readonly track: number
  /** From 1, as instruments count. */
  readonly channel: number
  readonly name: string
  readonly notes: number
}

export interface ReadMidi {
  readonly line: Line
  readonly voices: readonly MidiVoice[]
  /** Which of them is the line. */
  readonly chosen: number
  readonly leftOut: readonly LeftOut[]
  /** The notes of the line as they were played; empty where the source has a grid of its own. */
  readonly played: readonly Played[]
}

const DRUMS = 10

interface FoundVoice extends MidiVoice {
  readonly raw: readonly Played[]
}

type Track = ReturnType<typeof parseMidi>['tracks'][number]

/** The notes of one track by channel, in ticks of 960 a quarter; a note that never ends lasts to the next. */
const voicesOf = (track: Track, index: number, scale: number): readonly FoundVoice[] => {
  const channels = new Map<number, Played[]>()
  const open = new Map<string, number>()
  let [at, name] = [0, '']
  for (const e of track) {
    at += e.deltaTime
    if (e.type === 'trackName' && 'text' in e) name = e.text.slice(0, 80)
    if (e.type !== 'noteOn' && e.type !== 'noteOff') continue
    const key = `${e.channel} ${e.noteNumber}`
    const from = open.get(key)
    if (from !== undefined) {
      const notes = channels.get(e.channel) ?? []
      notes.push({ at: from * scale, for: (at - from) * scale, pitch: e.noteNumber })
      channels.set(e.channel, notes)
      open.delete(key)
    }
    if (e.type === 'noteOn' && e.velocity > 0) open.set(key, at)
  }
  return [...channels].map(([channel, raw]) => ({ track: index, channel: channel + 1, name, notes: raw.length, raw }))
}

/** Reads a line from a Standard MIDI File: the voice asked for, else the busiest high one; drums are left out. */
export const readMidiLine = (bytes: Uint8Array, voice: number | null, grid: Grid): Result<ReadMidi, Refusal> => {
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
  if (voices.some((v) => v.notes > MOST.notes))
    return refuse(`It has more than ${printCount(MOST.notes)} notes in one voice.`)
  if (voices.some((v) => v.raw.some((n) => n.at + n.for > MOST.ticks)))
    return refuse(`It goes on for more than ${printCount(MOST.bars)} bars.`)
  const high = (v: FoundVoice): number => v.raw.reduce((sum, n) => sum + n.pitch, 0) / v.raw.length
  const [best] = [...voices.keys()].sort((a, b) => high(voices[b] as FoundVoice) - high(voices[a] as FoundVoice))
  const chosen = voice !== null && voices[voice] ? voice : (best ?? 0)
  const { raw } = voices[chosen] as FoundVoice
  const line = quantised(raw, grid)
  const leftOut: LeftOut[] = []
  if (all.length > voices.length) leftOut.push({ what: 'the drums', why: 'a line has pitches' })
  if (raw.length > line.length)
    leftOut.push({
      what: `${raw.length - line.length} notes`,
      why: 'of notes that begin together the highest is the line',
    })
  if (voices.length > 1) leftOut.push({ what: `${voices.length - 1} other voices`, why: 'one is read at a time' })
  return ok({ line, voices: voices.map(({ raw: _, ...v }) => v), chosen, leftOut, played: raw })
}
