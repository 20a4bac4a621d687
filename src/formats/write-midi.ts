import { type MidiEvent, type MidiHeader, writeMidi } from 'midi-file'
import {
  type BandPart,
  bandOver,
  barsAt,
  beatsOfBars,
  type Chart,
  changesOf,
  type Feel,
  feelOf,
  newMetres,
  swingOf,
  swungNotes,
  TICKS_PER_QUARTER,
  type Tune,
  toAscii,
} from '../core/index.ts'
import { fifthsOf } from './fifths.ts'

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

/** Names in a MIDI file are bytes: accidentals as letters, what has no byte as a question mark. */
const asciiOf = (name: string): string => toAscii(name).replace(/[^\x20-\xff]/g, '?')

const DRUM_CHANNEL = 9
const LOUDEST = 112

/** Something at a tick; of what stands at the same one, notes end first. */
interface Moment {
  readonly at: number
  readonly event: object
}

const trackEvents = ({ name, channel, program, notes }: MidiTrack, head: readonly Moment[]): MidiEvent[] => {
  const ends = notes.map(({ at, for: length, pitch: noteNumber }) => ({
    at: Math.round(at + length),
    event: { type: 'noteOff', channel, noteNumber, velocity: 0 },
  }))
  const begins = notes.map(({ at, pitch: noteNumber, loudness }) => ({
    at: Math.round(at),
    event: { type: 'noteOn', channel, noteNumber, velocity: Math.round(loudness * LOUDEST) },
  }))
  const named: readonly Moment[] = [
    { at: 0, event: { meta: true, type: 'trackName', text: asciiOf(name) } },
    ...(program === null ? [] : [{ at: 0, event: { type: 'programChange', channel, programNumber: program } }]),
  ]
  let last = 0
  const timed = [...named, ...head, ...ends, ...begins]
    .sort((a, b) => a.at - b.at)
    .map(({ at, event }) => {
      const deltaTime = at - last
      last = at
      return { ...event, deltaTime } as MidiEvent
    })
  return [...timed, { deltaTime: 0, meta: true, type: 'endOfTrack' }]
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

/** Tempo, key, metre and sections of a chart; a pickup is a bar of its own, so that bar lines stand where they are. */
const headOf = (chart: Chart, tempo: number): readonly Moment[] => {
  const { metre, pickup } = chart
  const microsecondsPerBeat = Math.round((60_000_000 / tempo) * (metre.unit / 4))
  const metreAt = (at: number, beats: number, unit: number): Moment => ({
    at,
    event: {
      ...{ meta: true, type: 'timeSignature', numerator: beats, denominator: unit },
      ...{ metronome: 24, thirtyseconds: 8 },
    },
  })
  const isHalf = !Number.isInteger(pickup)
  const bars = barsAt(chart)
  const changed = newMetres(chart)
  const metres = bars.flatMap(({ from, number, metre: { beats, unit } }, i): readonly Moment[] => {
    const before = bars[i - 1]
    if (i === 0 && pickup > 0)
      return [isHalf ? metreAt(from, pickup * 2, metre.unit * 2) : metreAt(from, pickup, metre.unit)]
    const isNew = !before || before.number === 0 || changed.has(number)
    return isNew ? [metreAt(from, beats, unit)] : []
  })
  const keys = chart.bars.flatMap((bar, i): readonly Moment[] => {
    const key = i === 0 ? bar.key : changesOf(bar, chart.bars[i - 1]).key
    const sharps = key && fifthsOf(key)
    if (!key || sharps === null || Math.abs(sharps) > 7) return []
    const scale = key.mode === 'minor' ? 1 : 0
    return [{ at: bars[i]?.from ?? 0, event: { meta: true, type: 'keySignature', key: sharps, scale } }]
  })
  const sections = bars.flatMap(({ from }, i) => {
    const section = chart.bars[i]?.section
    return section ? [{ at: from, event: { meta: true, type: 'marker', text: asciiOf(section) } }] : []
  })
  return [
    { at: 0, event: { meta: true, type: 'setTempo', microsecondsPerBeat } },
    ...[...metres, ...keys, ...sections].sort((a, b) => a.at - b.at),
  ]
}

/** A Standard MIDI File: of one track as format 0, of more as format 1 with the tempo in front. */
export const midiFile = (chart: Chart, tempo: number, tracks: readonly MidiTrack[]): Uint8Array => {
  const all = tracks.map((track, i) => trackEvents(track, i === 0 ? headOf(chart, tempo) : []))
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
    swungNotes(all, beatsOfBars(timeline), swing)
  const tracks = BAND.map(({ parts, ...track }): MidiTrack => {
    return { ...track, notes: swung(notes.filter((n) => parts.includes(n.part))) }
  })
  return midiFile(chart, beats, line ? [{ ...line, notes: swung(line.notes) }, ...tracks] : tracks)
}
