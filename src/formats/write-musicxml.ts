import { XMLBuilder } from 'fast-xml-parser'
import {
  barTicks,
  type Chart,
  changesOf,
  type Feel,
  type Harmony,
  IN_TIME_OF,
  type Instrument,
  type Key,
  type Metre,
  type Note,
  TICKS_PER_QUARTER,
  type Written,
  type WrittenBar,
} from '../core/index.ts'
import { fifthsOf } from './fifths.ts'
import { stepAndAlter, toXml } from './musicxml-chords.ts'

type Out = Readonly<Record<string, unknown>>
const el = (
  name: string,
  inside: readonly Out[] | string | number,
  attributes?: Readonly<Record<string, string>>,
): Out => ({
  [name]: typeof inside === 'object' ? inside : [{ '#text': String(inside) }],
  ...(attributes ? { ':@': attributes } : {}),
})

const harmony = (chord: Harmony, at: number): Out => {
  const offset = at > 0 ? [el('offset', at)] : []
  if (chord.kind === 'no chord')
    return el('harmony', [el('root', [el('root-step', 'C')]), el('kind', 'none', { text: chord.symbol }), ...offset])
  const xml = toXml(chord)
  const note = (which: string, name: string) => {
    const { step, alter } = stepAndAlter(name)
    return el(which, [el(`${which}-step`, step), ...(alter ? [el(`${which}-alter`, alter)] : [])])
  }
  return el('harmony', [
    note('root', xml.root),
    el('kind', xml.kind, { text: xml.text ?? '' }),
    ...(xml.bass ? [note('bass', xml.bass)] : []),
    ...xml.degrees.map((d) =>
      el('degree', [el('degree-value', d.value), el('degree-alter', d.alter), el('degree-type', d.type)]),
    ),
    ...offset,
  ])
}

/** Clefs a part is written in, each with its sign and the line that stands on. */
export const SCORE_CLEFS = { treble: ['G', 2], bass: ['F', 4], alto: ['C', 3] } as const
export type ScoreClef = keyof typeof SCORE_CLEFS

/** Who reads a part: what is written for them already stands in their pitch. */
export interface Reader {
  readonly instrument: Instrument
  readonly clef: ScoreClef
}

const keyElement = (key: Key): Out => el('key', [el('fifths', fifthsOf(key) ?? 0), el('mode', key.mode)])
const timeElement = ({ beats, unit }: Metre): Out => el('time', [el('beats', beats), el('beat-type', unit)])

/** What a bar changes of the key and the metre of the one before. */
const changes = (bar: WrittenBar, before: WrittenBar): readonly Out[] => {
  const { key, metre } = changesOf(bar, before)
  const inside = [...(key ? [keyElement(key)] : []), ...(metre ? [timeElement(metre)] : [])]
  return inside.length > 0 ? [el('attributes', inside)] : []
}

const attributes = ({ key, metre }: Chart, reader: Reader | null): Out => {
  const [sign, line] = SCORE_CLEFS[reader?.clef ?? 'treble']
  const { letters = 0, semitones = 0 } = reader?.instrument.written ?? {}
  const transpose = semitones ? [el('transpose', [el('diatonic', -letters), el('chromatic', -semitones)])] : []
  return el('attributes', [
    el('divisions', TICKS_PER_QUARTER),
    ...(key ? [keyElement(key)] : []),
    timeElement(metre),
    el('clef', [el('sign', sign), el('line', line)]),
    ...transpose,
  ])
}

const opening = (bar: WrittenBar): readonly Out[] => {
  const ending =
    bar.endings.length > 0
      ? [el('ending', `${bar.endings.join(',')}.`, { number: bar.endings.join(','), type: 'start' })]
      : []
  const repeat = bar.opens ? [el('repeat', [], { direction: 'forward' })] : []
  return ending.length + repeat.length > 0 ? [el('barline', [...ending, ...repeat], { location: 'left' })] : []
}
/** The right end of a bar; the last ending of a repeat is open: its bracket stops over its first bar. */
const closing = (bar: WrittenBar, ending: readonly number[], isLast: boolean): readonly Out[] => {
  const bracket = (type: string): readonly Out[] =>
    ending.length > 0 ? [el('ending', [], { number: ending.join(','), type })] : []
  const inside = bar.closes
    ? [...bracket('stop'), el('repeat', [], { direction: 'backward' })]
    : isLast
      ? bracket('discontinue')
      : []
  return inside.length > 0 ? [el('barline', inside, { location: 'right' })] : []
}

/** Whether an ending begins in a bar that no repeat sign closes. */
const isLastEnding = (bars: readonly WrittenBar[], at: number): boolean => {
  if ((bars[at]?.endings.length ?? 0) === 0) return false
  const rest = bars.slice(at)
  const next = rest.findIndex((b, i) => b.closes || (i > 0 && (b.opens || b.endings.length > 0)))
  return next < 0 || !rest[next]?.closes
}

/** Notes with each chord before the one it begins with or within. */
const notesUnder = (bar: WrittenBar, notes: readonly NoteAt[]): readonly Out[] => {
  let [at, next] = [0, 0]
  const chordsUntil = (until: number): readonly Out[] => {
    const first = next
    while ((bar.spots[next]?.at ?? Infinity) < until) next++
    return bar.spots.slice(first, next).map((s) => harmony(s.chord, s.at - at))
  }
  const all = notes.flatMap((n) => {
    const before = chordsUntil(at + n.for)
    at += n.for
    return [...before, noteIn(n)]
  })
  return [...all, ...chordsUntil(Infinity)]
}

const lengthOf = (bar: WrittenBar): number => bar.spots.reduce((sum, s) => sum + s.length, 0) || barTicks(bar.metre)

/** A chart with its bars as they are played for its written ones, and empty bars after them up to a count. */
export const playedOut = (chart: Chart, count = chart.bars.length): Chart => ({
  ...chart,
  written: Array.from({ length: count }, (_, i) => {
    const { section = null, spots = [] } = chart.bars[i] ?? {}
    const { metre, key } = chart.bars[i] ?? chart.bars.at(-1) ?? chart
    return { section, spots, metre, key, opens: false, closes: false, endings: [], text: { at: 0, end: 0 } }
  }),
})

/** Words above the chords of a written bar: ticks from its start, and what they say. */
export interface WordsAt {
  readonly at: number
  readonly text: string
}

const words = ({ at, text }: WordsAt): Out =>
  el('direction', [el('direction-type', [el('words', text)]), ...(at > 0 ? [el('offset', at)] : [])], {
    placement: 'above',
  })

/** A note, or a rest, of a line in a bar; `ties` into the next, `tied` to the one before. */
export interface NoteAt {
  readonly for: number
  readonly note: { readonly note: Note; readonly octave: number } | null
  readonly ties: boolean
  readonly tied: boolean
  /** How it is written, where it lies on a grid. */
  readonly sign?: Pick<Written, 'value' | 'dots' | 'tuplet'>
  /** Whether a tuplet begins or ends with it. */
  readonly bracket?: 'start' | 'stop' | undefined
  /** Words under the note, line by line. */
  readonly under?: readonly string[]
}

const writtenValue = ({ sign }: NoteAt): readonly Out[] =>
  sign === undefined
    ? []
    : [
        el('type', sign.value),
        ...(sign.dots > 0 ? [el('dot', [])] : []),
        ...(sign.tuplet
          ? [el('time-modification', [el('actual-notes', sign.tuplet), el('normal-notes', IN_TIME_OF[sign.tuplet])])]
          : []),
      ]

const noteIn = (at: NoteAt): Out => {
  const { note, ties, tied, for: duration, bracket } = at
  const brackets = bracket ? [el('tuplet', [], { type: bracket })] : []
  if (!note)
    return el('note', [
      el('rest', []),
      el('duration', duration),
      ...writtenValue(at),
      ...(brackets.length > 0 ? [el('notations', brackets)] : []),
    ])
  const { step, alter } = stepAndAlter(note.note.name)
  const both = [...(tied ? ['stop'] : []), ...(ties ? ['start'] : [])]
  return el('note', [
    el('pitch', [el('step', step), ...(alter ? [el('alter', alter)] : []), el('octave', note.octave)]),
    el('duration', duration),
    ...both.map((type) => el('tie', [], { type })),
    ...writtenValue(at),
    ...(both.length + brackets.length > 0
      ? [el('notations', [...both.map((type) => el('tied', [], { type })), ...brackets])]
      : []),
    ...(at.under ?? []).map((text, i) => el('lyric', [el('text', text)], { number: String(i + 1) })),
  ])
}

const UNITS = { 2: 'half', 4: 'quarter', 8: 'eighth', 16: '16th' } as const
/** The tempo as it is read: so many beats of the metre a minute. */
const metronome = ({ metre, tempo }: Chart): Out =>
  el('metronome', [el('beat-unit', UNITS[metre.unit]), el('per-minute', tempo)])

/** How eighths are played, where the chart names a feel: long and short, or as they are written. */
const swing = (feel: Feel | undefined): readonly Out[] => {
  if (feel === undefined || feel === 'free drone') return []
  const ratio = feel === 'swing' || feel === 'waltz' ? [el('first', 2), el('second', 1)] : [el('straight', [])]
  return [el('swing', feel === 'swing' || feel === 'waltz' ? [...ratio, el('swing-type', 'eighth')] : ratio)]
}

/** What a score of one part has besides its chords: words and notes by written bar, who reads it, and its name. */
export interface ScoreOf {
  readonly above?: (writtenBar: number) => readonly WordsAt[]
  readonly notes?: ((writtenBar: number) => readonly NoteAt[]) | null
  readonly reader?: Reader | null
  readonly part?: string | null
}

/**
 * A chart as a MusicXML score of one part: chord symbols over rests, with its sections and repeats, and whatever words
 * shall stand above its written bars.
 */
export const writeMusicXml = (
  chart: Chart,
  { above = () => [], notes = null, reader = null, part = null }: ScoreOf = {},
): string => {
  let ending: readonly number[] = []
  const measures = chart.written.map((bar, i) => {
    if (bar.endings.length > 0) ending = bar.endings
    const isPickup = i === 0 && chart.pickup > 0
    const before = chart.written[i - 1]
    const isLast = isLastEnding(chart.written, i)
    const section = bar.section
      ? [el('direction', [el('direction-type', [el('rehearsal', bar.section)])], { placement: 'above' })]
      : []
    const tempo =
      i === 0
        ? [
            el('direction', [
              ...(chart.feel ? [el('direction-type', [el('words', chart.feel)])] : []),
              el('direction-type', [metronome(chart)]),
              el('sound', swing(chart.feel), { tempo: String((chart.tempo * 4) / chart.metre.unit) }),
            ]),
          ]
        : []
    const measure = el(
      'measure',
      [
        ...opening(bar),
        ...(before ? changes(bar, before) : [attributes(chart, reader)]),
        ...section,
        ...tempo,
        ...above(i).map(words),
        ...(notes
          ? notesUnder(bar, notes(i))
          : [
              ...bar.spots.map((s) => harmony(s.chord, s.at)),
              el('note', [el('rest', [], { measure: 'yes' }), el('duration', lengthOf(bar))]),
            ]),
        ...closing(bar, ending, isLast),
      ],
      isPickup ? { number: '0', implicit: 'yes' } : { number: String(chart.pickup > 0 ? i : i + 1) },
    )
    if (bar.closes || isLast) ending = []
    return measure
  })
  const score = el(
    'score-partwise',
    [
      el('work', [el('work-title', chart.title)]),
      el('part-list', [
        el('score-part', [el('part-name', part ?? reader?.instrument.short ?? 'Chords')], { id: 'P1' }),
      ]),
      el('part', measures, { id: 'P1' }),
    ],
    { version: '4.0' },
  )
  const built = new XMLBuilder({
    preserveOrder: true,
    ignoreAttributes: false,
    attributeNamePrefix: '',
    format: true,
    suppressEmptyNode: true,
  })
  return `<?xml version="1.0" encoding="UTF-8"?>\n${String(built.build([score])).trim()}\n`
}
