import { type MidiEvent, type MidiHeader, writeMidi } from 'midi-file'
import {
  type BandPart,
  bandOver,
  type Chart,
  type Feel,
  feelOf,
  swingOf,
  swungNotes,
  TICKS_PER_QUARTER,
  type Tune,
} from '../core/index.ts'

interface MidiNote {
  readonly at: number
  readonly for: number
  readonly pitch: number
  /** 0..1 */
  readonly loudness: number
}

/** One track; `channel` from 0, `program` of the General MIDI set. */
export interface MidiTrack {
  readonly name: string
  readonly channel: number
  readonly program: number | null
  readonly notes: readonly MidiNote[]
}

/** How a band plays in a file; what is null goes by the chart. */
export interface Manner {
  readonly feel: Feel | null
  readonly tempo: number | null
}

const DRUM_CHANNEL = 9
const LOUDEST = 112

const trackEvents = ({ name, channel, program, notes }: MidiTrack): MidiEvent[] => {
  const moments = notes.flatMap(({ at, for: length, pitch: noteNumber, loudness }) => [
    { at: Math.round(at), event: { type: 'noteOn', channel, noteNumber, velocity: Math.round(loudness * LOUDEST) } },
    { at: Math.round(at + length), event: { type: 'noteOff', channel, noteNumber, velocity: 0 } },
  ])
  const sorted = [...moments].sort((a, b) => a.at - b.at || (a.event.type === 'noteOff' ? -1 : 1))
  let last = 0
  const played = sorted.map(({ at, event }) => {
    const deltaTime = at - last
    last = at
    return { ...event, deltaTime } as MidiEvent
  })
  return [
    { deltaTime: 0, meta: true, type: 'trackName', text: name },
    ...(program === null ? [] : [{ deltaTime: 0, type: 'programChange', channel, programNumber: program } as const]),
    ...played,
    { deltaTime: 0, meta: true, type: 'endOfTrack' },
  ]
}

const HEAD_BYTES = 14
const CHUNK_BYTES = 8
/** The library's time goes with the square of a track's length, so that it is handed short pieces, which are joined. */
const PIECE = 256

const chunkOf = (events: readonly MidiEvent[], header: MidiHeader): Uint8Array => {
  const pieces = Array.from({ length: Math.ceil(events.length / PIECE) }, (_, i) => {
    const piece = events.slice(i * PIECE, (i + 1) * PIECE)
    return Uint8Array.from(writeMidi({ header, tracks: [piece] }).slice(HEAD_BYTES + CHUNK_BYTES))
  })
  const size = pieces.reduce((sum, p) => sum + p.length, 0)
  const chunk = new Uint8Array(CHUNK_BYTES + size)
  chunk.set(new TextEncoder().encode('MTrk'))
  new DataView(chunk.buffer).setUint32(4, size)
  let at = CHUNK_BYTES
  for (const p of pieces) {
    chunk.set(p, at)
    at += p.length
  }
  return chunk
}

/** A Standard MIDI File: of one track as format 0, of more as format 1 with the tempo in front. */
export const midiFile = ({ metre }: Chart, tempo: number, tracks: readonly MidiTrack[]): Uint8Array => {
  const { beats: numerator, unit: denominator } = metre
  const microsecondsPerBeat = Math.round((60_000_000 / tempo) * (denominator / 4))
  const head: MidiEvent[] = [
    { deltaTime: 0, meta: true, type: 'setTempo', microsecondsPerBeat },
    { deltaTime: 0, meta: true, type: 'timeSignature', numerator, denominator, metronome: 24, thirtyseconds: 8 },
  ]
  const [first, ...rest] = tracks.map(trackEvents)
  const all = [[...head, ...(first ?? [])], ...rest]
  const header = { format: all.length > 1 ? 1 : 0, numTracks: all.length, ticksPerBeat: TICKS_PER_QUARTER } as const
  const begin = writeMidi({ header, tracks: all.map(() => []) }).slice(0, HEAD_BYTES)
  return new Uint8Array(Buffer.concat([Uint8Array.from(begin), ...all.map((events) => chunkOf(events, header))]))
}

const BASS = 32
const PIANO = 4
const BAND: readonly (Omit<MidiTrack, 'notes'> & { readonly parts: readonly BandPart[] })[] = [
  { name: 'bass', channel: 1, program: BASS, parts: ['bass'] },
  { name: 'chords', channel: 2, program: PIANO, parts: ['chords'] },
  { name: 'drums', channel: DRUM_CHANNEL, program: null, parts: ['ride', 'hat', 'drum', 'rim'] },
]

/** The band over a chart, with a line over it where there is one: as many choruses as the line needs, swung. */
export const writeBandMidi = (
  { chart, timeline }: Tune,
  line: MidiTrack | null,
  { feel, tempo }: Manner,
): Uint8Array => {
  const played = feel ?? feelOf(chart)
  const beats = tempo ?? chart.tempo
  const end = Math.max(1, ...(line?.notes ?? []).map((n) => n.at + n.for))
  const span = { from: 0, to: Math.ceil(end / timeline.length) * timeline.length }
  const notes = bandOver(chart, timeline, played, span)
  const swing = swingOf(played, beats, null)
  const swung = <N extends { readonly at: number; readonly for: number }>(all: readonly N[]): readonly N[] =>
    swungNotes(all, timeline.beat, swing)
  const tracks = BAND.map(({ parts, ...track }): MidiTrack => {
    return { ...track, notes: swung(notes.filter((n) => parts.includes(n.part))) }
  })
  return midiFile(chart, beats, line ? [{ ...line, notes: swung(line.notes) }, ...tracks] : tracks)
}
