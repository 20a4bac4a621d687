import { parseMidi } from 'midi-file'
import { type Line, type LineNote, lineOf, midi, ok, type Result, TICKS_PER_QUARTER, ticks } from '../core/index.ts'
import { type LeftOut, type Refusal, refuse } from './assemble.ts'

/** What onsets and lengths are brought to: sixteenths, eighth triplets, or for each beat whichever lies nearer. */
export const GRIDS = ['nearest', 'sixteenths', 'triplets', 'none'] as const
export type Grid = (typeof GRIDS)[number]

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
}

const DRUMS = 10
const MOST_NOTES = 20_000

interface Raw {
  readonly at: number
  readonly for: number
  readonly pitch: number
}

interface FoundVoice extends MidiVoice {
  readonly raw: readonly Raw[]
}

type Track = ReturnType<typeof parseMidi>['tracks'][number]

/** The notes of one track by channel, in ticks of 960 a quarter; a note that never ends lasts to the next. */
const voicesOf = (track: Track, index: number, scale: number): readonly FoundVoice[] => {
  const channels = new Map<number, Raw[]>()
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

const GRID_STEPS: Readonly<Record<Exclude<Grid, 'nearest' | 'none'>, number>> = {
  sixteenths: TICKS_PER_QUARTER / 4,
  triplets: TICKS_PER_QUARTER / 3,
}

const missed = (notes: readonly Raw[], step: number): number =>
  notes.reduce((sum, n) => sum + Math.abs(n.at - Math.round(n.at / step) * step), 0)

/** The step for each beat: of triplets and sixteenths the one its onsets lie nearer to, sixteenths where both do. */
const stepsByBeat = (notes: readonly Raw[], grid: Grid): ((at: number) => number) => {
  if (grid === 'none') return () => 1
  if (grid !== 'nearest') return () => GRID_STEPS[grid]
  const beats = new Map<number, Raw[]>()
  const beatOf = (at: number): number => Math.floor((at + GRID_STEPS.sixteenths / 4) / TICKS_PER_QUARTER)
  for (const n of notes) beats.set(beatOf(n.at), [...(beats.get(beatOf(n.at)) ?? []), n])
  return (at) => {
    const here = beats.get(beatOf(at)) ?? []
    return missed(here, GRID_STEPS.triplets) < missed(here, GRID_STEPS.sixteenths)
      ? GRID_STEPS.triplets
      : GRID_STEPS.sixteenths
  }
}

/**
 * Onsets brought to the grid. A note lasts to the next where it nearly does, else to the grid; never to nothing. Of notes
 * that begin together the highest is the line.
 */
export const quantised = (raw: readonly Raw[], grid: Grid): Line => {
  const stepAt = stepsByBeat(raw, grid)
  const placed = raw.map((n): LineNote => {
    const step = stepAt(n.at)
    const at = Math.round(n.at / step) * step
    const end = Math.max(at + step, Math.round((n.at + n.for) / step) * step)
    return { at: ticks(at), for: ticks(end - at), pitch: midi(n.pitch) }
  })
  const line = lineOf(placed)
  return line.map((n, i) => {
    const next = line[i + 1]
    const gap = next ? next.at - (n.at + n.for) : 0
    const reach = next && (gap < 0 || (grid !== 'none' && gap < GRID_STEPS.sixteenths)) ? next.at - n.at : n.for
    return { ...n, for: ticks(Math.max(1, reach)) }
  })
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
  if (voices.some((v) => v.notes > MOST_NOTES)) return refuse('It has too many notes for a line.')
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
  return ok({ line, voices: voices.map(({ raw: _, ...v }) => v), chosen, leftOut })
}
