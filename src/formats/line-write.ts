import { stringify } from 'csv-stringify/sync'
import {
  barsAt,
  barTicks,
  beatTicks,
  type Chart,
  type Line,
  type LineNote,
  MOST,
  type Note,
  noteAround,
  ok,
  type Pitch,
  pitchClass,
  pitchNamed,
  plainNote,
  printCount,
  type Result,
  type Span,
  TICKS_PER_QUARTER,
  type Tune,
  writtenBar,
} from '../core/index.ts'
import { fractionText, titleField } from './abc.ts'
import { type Refusal, refuse } from './assemble.ts'
import { type Manner, type MidiTrack, midiFile, writeBandMidi } from './write-midi.ts'
import { type NoteAt, playedOut, writeMusicXml } from './write-musicxml.ts'

/** The formats a line is written in: each with its file extension and media type. */
export const LINE_FORMATS = {
  musicxml: { extension: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
  midi: { extension: 'mid', type: 'audio/midi' },
  abc: { extension: 'abc', type: 'text/vnd.abc; charset=utf-8' },
  csv: { extension: 'csv', type: 'text/csv; charset=utf-8' },
} as const
export type LineFormat = keyof typeof LINE_FORMATS

const spelling = (n: LineNote): Note => n.note ?? plainNote(pitchClass(n.pitch))
const placed = (n: LineNote): Pitch => pitchNamed(spelling(n), n.pitch)

/** A piece of a note or rest within one bar. */
interface Piece {
  readonly at: number
  readonly for: number
  readonly note: Pitch | null
  /** Whether it goes on into the next piece, and from the one before. */
  readonly ties: boolean
  readonly tied: boolean
}

const endOfLine = (line: Line): number => line.reduce((end, n) => Math.max(end, n.at + n.for), 0)

/** Where the bars of a line lie: the chart's, which may begin with a pickup, then whole ones as far as the line goes. */
const spansOf = (line: Line, chart: Chart): readonly Span[] => {
  const [spans, whole, end]: [Span[], number, number] = [
    barsAt(chart).map(({ from, to }) => ({ from, to })),
    barTicks(chart.metre),
    endOfLine(line),
  ]
  for (let from = spans.at(-1)?.to ?? 0; from < end; from += whole) spans.push({ from, to: from + whole })
  return spans
}

/** A line cut at the bar lines, rests filled in. */
const barsOfLine = (line: Line, spans: readonly Span[]): readonly (readonly Piece[])[] =>
  spans.map(({ from, to }) => {
    const pieces: Piece[] = []
    let at = from
    const rest = (until: number): void => {
      if (until > at) pieces.push({ at: at - from, for: until - at, note: null, ties: false, tied: false })
      at = Math.max(at, until)
    }
    for (let k = noteAround(line, from); k < line.length; k++) {
      const n = line[k] as LineNote
      if (n.at >= to) break
      const stop = Math.min(n.at + n.for, line[k + 1]?.at ?? Infinity)
      if (stop <= from) continue
      rest(Math.max(n.at, from))
      const until = Math.min(stop, to)
      pieces.push({ at: at - from, for: until - at, note: placed(n), ties: stop > to, tied: n.at < from })
      at = until
    }
    rest(to)
    return pieces
  })

const FINEST = 40
/** Whether what sounds in a bar lies on what can be written with values, dots and triplets. */
const isWritable = (line: Line, { from, to }: Span): boolean => {
  for (let k = noteAround(line, from); k < line.length; k++) {
    const n = line[k] as LineNote
    if (n.at >= to) break
    if (n.at + n.for > from && (n.at % FINEST !== 0 || n.for % FINEST !== 0)) return false
  }
  return true
}

/** The signs of a bar as they are written, tied where a value ends and the note goes on. */
const signsOf = (line: Line, { metre }: Chart, bar: Span): readonly NoteAt[] => {
  const signs = writtenBar(line, bar, beatTicks(metre))
  return signs.map((sign, i) => {
    const note = sign.note === null ? undefined : line[sign.note]
    const begins = note?.at === sign.at
    return {
      for: sign.for,
      note: note ? placed(note) : null,
      ties: sign.tied,
      tied: note !== undefined && !begins && (i > 0 ? signs[i - 1]?.note === sign.note : true),
      sign,
    }
  })
}

const SIGN: Readonly<Record<number, string>> = { [-2]: '__', [-1]: '_', 0: '=', 1: '^', 2: '^^' }
const EIGHTH = TICKS_PER_QUARTER / 2

const abcNote = ({ note, ties }: Piece, length: number): string => {
  if (!note) return `z${fractionText(length, EIGHTH)}`
  const { letter, alter } = note.note
  const name = 'CDEFGAB'.charAt(letter)
  const octave =
    note.octave >= 5 ? name.toLowerCase() + "'".repeat(note.octave - 5) : name + ','.repeat(4 - note.octave)
  return `${SIGN[alter]}${octave}${fractionText(length, EIGHTH)}${ties ? '-' : ''}`
}

const THIRDS = 3
/** A bar's notes; three alike that share the time of two are a triplet. */
const abcBar = (pieces: readonly Piece[]): string => {
  const words: string[] = []
  for (let i = 0; i < pieces.length; i++) {
    const group = pieces.slice(i, i + THIRDS)
    const first = group[0] as Piece
    const triplet =
      group.length === THIRDS &&
      group.every((p) => p.for === first.for) &&
      first.for % 60 !== 0 &&
      (first.for * THIRDS) % 120 === 0
    if (triplet) {
      words.push(`(3${group.map((p) => abcNote(p, (p.for * THIRDS) / 2)).join('')}`)
      i += THIRDS - 1
    } else words.push(abcNote(first, first.for))
  }
  return words.join(' ')
}

const writeAbcLine = (name: string, line: Line, chart: Chart): string => {
  const { metre, tempo } = chart
  const bars = barsOfLine(line, spansOf(line, chart))
  const text = bars.map((pieces, i) => {
    const chords = (chart.bars[i]?.spots ?? []).map((s) => ({ at: s.at, text: `"${s.chord.symbol}"` }))
    const [first, ...later] = chords
    const cut = later.reduce<readonly Piece[]>((all, c) => all.flatMap((p) => split(p, c.at)), pieces)
    const groups = [first, ...later].map((c, k) => {
      const until = later[k]?.at ?? Infinity
      return `${c?.text ?? ''}${abcBar(cut.filter((p) => p.at >= (c?.at ?? 0) && p.at < until))}`
    })
    return groups.join(' ')
  })
  const head = ['X:1', titleField(name), `M:${metre.beats}/${metre.unit}`, 'L:1/8', `Q:1/${metre.unit}=${tempo}`, 'K:C']
  return `${[...head, ...text.map((bar) => `${bar} |`)].join('\n')}\n`
}

/** A piece cut in two where a chord begins within it. */
const split = (p: Piece, at: number): readonly Piece[] =>
  at <= p.at || at >= p.at + p.for
    ? [p]
    : [
        { ...p, for: at - p.at, ties: p.note !== null },
        { ...p, at, for: p.at + p.for - at, tied: p.note !== null },
      ]

const LINE_LOUDNESS = 0.7

/** A line as a MIDI track, one note at a time. */
const lineTrack = (name: string, line: Line): MidiTrack => ({
  name,
  channel: 0,
  program: null,
  notes: line.map((n, i) => ({
    at: n.at,
    for: Math.min(n.for, (line[i + 1]?.at ?? Infinity) - n.at),
    pitch: n.pitch,
    loudness: LINE_LOUDNESS,
  })),
})

/** A band to play under a line: the tune as it reads it, and how. */
export interface Band {
  readonly tune: Tune
  readonly manner: Manner
}

/** A line over its chart as a file; as MIDI it may have a band with it. Refused where it has more bars than a chart. */
export const writeLine = (
  name: string,
  line: Line,
  chart: Chart,
  format: LineFormat,
  band: Band | null = null,
): Result<string | Uint8Array, Refusal> =>
  endOfLine(line) > MOST.bars * barTicks(chart.metre)
    ? refuse(`It goes on for more than ${printCount(MOST.bars)} bars.`)
    : ok(written(name, line, chart, format, band))

const written = (
  name: string,
  line: Line,
  chart: Chart,
  format: LineFormat,
  band: Band | null,
): string | Uint8Array => {
  switch (format) {
    case 'csv':
      return stringify(
        line.map((n) => ({
          at: n.at,
          for: n.for,
          pitch: n.pitch,
          name: placed(n).note.name,
          octave: placed(n).octave,
        })),
        { header: true, columns: ['at', 'for', 'pitch', 'name', 'octave'], escape_formulas: true },
      )
    case 'abc':
      return writeAbcLine(name, line, chart)
    case 'midi':
      return band
        ? writeBandMidi(band.tune, lineTrack(name, line), band.manner)
        : midiFile(chart, chart.tempo, [lineTrack(name, line)])
    case 'musicxml': {
      const spans = spansOf(line, chart)
      const bars = barsOfLine(line, spans)
      const signs = spans.map((span, i) => (isWritable(line, span) ? signsOf(line, chart, span) : (bars[i] ?? [])))
      return writeMusicXml(
        { ...playedOut(chart, bars.length), title: name },
        { notes: (i) => signs[i] ?? [], part: name },
      )
    }
  }
}
