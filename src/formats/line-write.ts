import { stringify } from 'csv-stringify/sync'
import {
  barsAt,
  barTicks,
  beatTicks,
  type Chart,
  changesOf,
  IN_TIME_OF,
  type Line,
  type LineNote,
  type Metre,
  MOST,
  type Note,
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
  tupletsIn,
  type Written,
  writtenBar,
} from '../core/index.ts'
import { abcChanges, abcHead, fractionText } from './abc.ts'
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

const endOfLine = (line: Line): number => line.reduce((end, n) => Math.max(end, n.at + n.for), 0)

/** A bar under a line. */
interface BarUnder extends Span {
  readonly metre: Metre
  /** A line's signature is its own. */
  readonly key: null
}

/** Where the bars of a line lie: the chart's, which may begin with a pickup, then whole ones as far as the line goes. */
const spansOf = (line: Line, chart: Chart): readonly BarUnder[] => {
  const spans: BarUnder[] = barsAt(chart).map(({ from, to, metre }) => ({ from, to, metre, key: null }))
  const [metre, end] = [chart.bars.at(-1)?.metre ?? chart.metre, endOfLine(line)]
  const whole = barTicks(metre)
  for (let from = spans.at(-1)?.to ?? 0; from < end; from += whole)
    spans.push({ from, to: from + whole, metre, key: null })
  return spans
}

/** A sign of a bar with its note, where it stands, and the tuplet that begins or ends with it. */
interface Sign extends NoteAt {
  readonly at: number
  readonly sign: Written
  /** How many signs the tuplet that begins here has. */
  readonly begins?: { readonly signs: number; readonly of: 3 | 5 } | undefined
}

/** The signs of a bar as they are written, tied where a value ends and the note goes on; none sounds over one of `cuts`. */
const signsOf = (line: Line, bar: BarUnder, cuts: readonly number[] = []): readonly Sign[] => {
  const signs = writtenBar(line, bar, beatTicks(bar.metre), cuts)
  const tuplets = tupletsIn(signs)
  const begins = new Map(tuplets.map((t) => [t.places[0], { signs: t.places.length, of: t.of }]))
  const ends = new Set(tuplets.map((t) => t.places.at(-1)))
  return signs.map((sign, i) => {
    const note = sign.note === null ? undefined : line[sign.note]
    const isFirst = note !== undefined && (i > 0 ? signs[i - 1]?.note !== sign.note : note.at >= bar.from)
    return {
      ...{ at: sign.at - bar.from, for: sign.for, sign },
      note: note ? placed(note) : null,
      ties: sign.tied,
      tied: note !== undefined && !isFirst,
      bracket: begins.has(i) ? 'start' : ends.has(i) ? 'stop' : undefined,
      begins: begins.get(i),
    }
  })
}

const SIGN: Readonly<Record<number, string>> = { [-2]: '__', [-1]: '_', 0: '=', 1: '^', 2: '^^' }
const EIGHTH = TICKS_PER_QUARTER / 2

/** A length as it is written: in a tuplet the value, not the time it takes. */
const lengthAs = ({ for: length, sign: { tuplet } }: Sign): number =>
  tuplet === null ? length : (length * tuplet) / IN_TIME_OF[tuplet]

const abcSign = (sign: Sign): string => {
  const { note, ties, begins } = sign
  const length = fractionText(Math.round(lengthAs(sign)), EIGHTH)
  const tuplet = begins ? `(${begins.of}:${IN_TIME_OF[begins.of]}:${begins.signs}` : ''
  if (!note) return `${tuplet}z${length}`
  const { letter, alter } = note.note
  const name = 'CDEFGAB'.charAt(letter)
  const octave =
    note.octave >= 5 ? name.toLowerCase() + "'".repeat(note.octave - 5) : name + ','.repeat(4 - note.octave)
  return `${tuplet}${SIGN[alter]}${octave}${length}${ties ? '-' : ''}`
}

/** Where notes are cut for a chord that begins in them: not within a tuplet, nor where the rest has no value of its own. */
const cutsBetween = (signs: readonly Sign[], spots: readonly { readonly at: number }[], from: number) =>
  spots
    .filter(({ at }) => {
      const within = signs.find((s) => s.at < at && at < s.at + s.for)
      return !within?.note || (within.sign.tuplet === null && (at - within.at) % SHORTEST === 0)
    })
    .map((s) => from + s.at)
const SHORTEST = TICKS_PER_QUARTER / 8

/** A line as a tune: its chords where they begin, its sections as parts. */
const writeAbcLine = (name: string, line: Line, chart: Chart): string => {
  const text = spansOf(line, chart).flatMap((span, i, spans) => {
    const { spots = [], section = null } = chart.bars[i] ?? {}
    const signs = signsOf(line, span, cutsBetween(signsOf(line, span), spots, span.from))
    const left = [...spots]
    const chordAt = (at: number): string => {
      const here = left.splice(0, left.filter((chord) => chord.at <= at).length).at(-1)
      return here ? `"${here.chord.symbol}"` : ''
    }
    const changes = abcChanges(changesOf(span, spans[i - 1]))
    const bar = signs.map((s) => `${chordAt(s.at)}${abcSign(s)}`).join(' ')
    return [...(section === null ? [] : [`P:${section}`]), `${changes}${bar} |`]
  })
  return `${[...abcHead(name, chart, '1/8', 'C'), ...text].join('\n')}\n`
}

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
      const signs = spans.map((span) => signsOf(line, span))
      return writeMusicXml(
        { ...playedOut(chart, spans.length), title: name },
        { notes: (i) => signs[i] ?? [], part: name },
      )
    }
  }
}
