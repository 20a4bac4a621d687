import {
  barTicks,
  type Feel,
  isFeel,
  type Key,
  type Metre,
  type Result,
  readMetre,
  type Ticks,
  ticks,
  transposeHarmony,
  UNKNOWN_CHORD,
  writtenRoot,
} from '../core/index.ts'
import {
  assemble,
  type FoundBar,
  type FoundChord,
  type Imported,
  type LeftOut,
  type Refusal,
  refuse,
} from './assemble.ts'
import { keyOfFifths } from './fifths.ts'
import { alterSign, fromXml, type XmlDegree } from './musicxml-chords.ts'
import {
  all,
  attribute,
  inside,
  jumpsIn,
  type Node,
  nameOf,
  number,
  one,
  repeatsOf,
  scoreIn,
  shiftOf,
  text,
  walkMeasure,
} from './xml.ts'

const keyFrom = (attributes: Node | undefined): Key | null => {
  const key = one(attributes, 'key')
  if (!key) return null
  return keyOfFifths(number(text(key, 'fifths')), text(key, 'mode') === 'minor' ? 'minor' : 'major')
}

const metreFrom = (attributes: Node | undefined): Metre | null => {
  const time = one(attributes, 'time')
  const beats = text(time, 'beats')
    .split('+')
    .reduce((sum, b) => sum + number(b), 0)
  const read = readMetre(`${beats}/${text(time, 'beat-type')}`)
  return read.ok ? read.value : null
}

interface Reader {
  divisions: number
  metre: Metre
  /** In concert pitch. */
  key: Key | null
  readonly shift: { readonly letters: number; readonly semitones: number }
  readonly leftOut: LeftOut[]
}

const named = (node: Node | undefined, step: string, alter: string): string =>
  text(node, step) + alterSign(number(text(node, alter)))

const degreesOf = (harmony: Node): readonly XmlDegree[] =>
  all(harmony, 'degree').map((d): XmlDegree => {
    const type = text(d, 'degree-type')
    return {
      value: number(text(d, 'degree-value')),
      alter: number(text(d, 'degree-alter')),
      type: type === 'alter' || type === 'subtract' ? type : 'add',
    }
  })

const harmonyAt = (node: Node, at: Ticks, bar: number, reader: Reader): FoundChord => {
  const kind = one(node, 'kind')
  const root = one(node, 'root')
  const words = attribute(kind, 'text')
  const isNone = text(kind) === 'none'
  if (!root && !isNone) {
    const what = text(node, 'function') || text(node, 'numeral', 'numeral-root') || 'a harmony without a root'
    reader.leftOut.push({ what: `${what} in bar ${bar}`, why: 'a chord needs a root by name: a ? stands there' })
    return { at, chord: UNKNOWN_CHORD }
  }
  const bass = one(node, 'bass')
  const found = fromXml({
    root: named(root, 'root-step', 'root-alter') || 'C',
    bass: bass ? named(bass, 'bass-step', 'bass-alter') : null,
    kind: text(kind) || (words === null ? 'major' : 'other'),
    text: words,
    degrees: degreesOf(node),
  })
  // A part at concert pitch keeps its spelling, double accidentals too.
  const { letters, semitones } = reader.shift
  if (found) return { at, chord: letters === 0 && semitones === 0 ? found : transposeHarmony(found, reader.shift) }
  const what = `${named(root, 'root-step', 'root-alter')}${words ?? ` ${text(kind)}`}`
  reader.leftOut.push({ what: `${what} in bar ${bar}`, why: 'this chord is not understood: a ? stands there' })
  return { at, chord: UNKNOWN_CHORD }
}

/** One measure: its chords where the notes, rests and offsets put them. */
const measureOf = (measure: Node, bar: number, reader: Reader): FoundBar => {
  const attributes = all(measure, 'attributes')
  const written = attributes.map(keyFrom).find((k) => k !== null)
  reader.metre = attributes.map(metreFrom).find((m) => m !== null) ?? reader.metre
  reader.key = written ? { ...written, tonic: writtenRoot(written.tonic, reader.shift) } : reader.key
  const { metre, key } = reader
  const chords: FoundChord[] = []
  let section: string | null = null
  const { length, divisions } = walkMeasure(measure, reader.divisions, (node, at, ticksIn) => {
    if (nameOf(node) === 'direction') section = text(node, 'direction-type', 'rehearsal') || section
    if (nameOf(node) !== 'harmony') return
    chords.push(harmonyAt(node, ticks(Math.max(0, at + ticksIn('offset'))), bar, reader))
  })
  reader.divisions = divisions
  return { section, ...repeatsOf(measure), metre, key, length: ticks(length), chords }
}

const BEATS: Readonly<Record<string, number>> = {
  ...{ breve: 8, whole: 4, half: 2, quarter: 1, eighth: 1 / 2, '16th': 1 / 4, '32nd': 1 / 8 },
}
/** Quarters a minute a metronome mark says by its own beat; 0 where it says none. */
const marked = (mark: Node | undefined): number => {
  const [, figure = ''] = /(\d+(?:\.\d+)?)/.exec(text(mark, 'per-minute')) ?? []
  const dots = all(mark, 'beat-unit-dot').length
  return number(figure) * (BEATS[text(mark, 'beat-unit')] ?? 1) * (2 - 0.5 ** dots)
}

/** The first tempo, in quarters a minute: what sounds, else what the mark says. */
const quartersIn = (part: Node): number => {
  for (const node of all(part, 'measure').flatMap(inside)) {
    const sound = nameOf(node) === 'sound' ? node : nameOf(node) === 'direction' ? one(node, 'sound') : undefined
    const said = number(attribute(sound, 'tempo') ?? '')
    const shown = all(node, 'direction-type').map((d) => marked(one(d, 'metronome')))
    const found = [said, ...shown].find((t) => t > 0)
    if (found) return found
  }
  return 120
}

/** How the score says it is played: by the name of a feel, else by how its eighths swing. */
const feelIn = (part: Node): Feel | undefined => {
  const [first] = all(part, 'measure')
  const directions = first ? all(first, 'direction') : []
  const words = directions.flatMap((d) => all(d, 'direction-type')).flatMap((t) => all(t, 'words').map((w) => text(w)))
  const named = words.map((w) => w.trim().toLowerCase()).find(isFeel)
  const swung = directions.map((d) => one(one(d, 'sound'), 'swing')).find((s) => s !== undefined)
  if (named || !swung) return named
  return one(swung, 'straight') ? 'straight' : 'swing'
}

const harmoniesIn = (part: Node): number => all(part, 'measure').reduce((sum, m) => sum + all(m, 'harmony').length, 0)

/** How many measures are repeated under a sign that repeats bars, by measure; 0 where there is none. */
const repeatedIn = (measures: readonly Node[]): readonly number[] => {
  let size = 0
  return measures.map((measure) => {
    const signs = all(measure, 'attributes')
      .flatMap((a) => all(a, 'measure-style'))
      .flatMap((s) => all(s, 'measure-repeat'))
    for (const sign of signs) size = attribute(sign, 'type') === 'start' ? Math.max(1, number(text(sign), 1)) : 0
    return size
  })
}

/** Under a sign that repeats bars the chords are those of the bars before. */
const withRepeated = (bars: readonly FoundBar[], repeated: readonly number[]): readonly FoundBar[] => {
  const all: FoundBar[] = []
  for (const [i, bar] of bars.entries()) {
    const before = (repeated[i] ?? 0) > 0 && bar.chords.length === 0 ? all[i - (repeated[i] as number)] : undefined
    all.push(before ? { ...bar, chords: before.chords, length: before.length } : bar)
  }
  return all
}

/**
 * Reads the chord symbols of a MusicXML score (partwise): key, metre, tempo, sections, repeats with endings. Of several
 * parts the one with most chords is read. Chords of a transposing part are brought to concert pitch.
 */
export const readMusicXml = (source: string): Result<Imported, Refusal> => {
  const score = scoreIn(source)
  if (!score.ok) return score
  const root = score.value
  const parts = [...all(root, 'part')].sort((a, b) => harmoniesIn(b) - harmoniesIn(a))
  const [part] = parts
  if (!part || all(part, 'measure').length === 0) return refuse('The score has no bars.')
  if (harmoniesIn(part) === 0) return refuse('The score has no chord symbols.', 'no_chords')
  const leftOut: LeftOut[] = parts
    .slice(1)
    .filter((p) => harmoniesIn(p) > 0)
    .map((p) => ({
      what: `the ${harmoniesIn(p)} chords of part ${attribute(p, 'id') ?? ''}`,
      why: 'another part has more of them',
    }))
  const notes = all(part, 'measure').some((m) => all(m, 'note').some((n) => one(n, 'pitch') !== undefined))
  if (notes) leftOut.push({ what: 'the notes', why: 'a chart holds chord symbols only' })
  const reader: Reader = {
    ...{ divisions: 1, metre: { beats: 4, unit: 4 }, key: null },
    ...{ shift: shiftOf(part), leftOut },
  }
  const measures = all(part, 'measure')
  const [first] = measures
  const jumps = jumpsIn(measures)
  const read = measures.map((m, i) => ({ ...measureOf(m, i + 1, reader), jumps: jumps[i] }))
  const bars = withRepeated(read, repeatedIn(measures))
  const isPickup = attribute(first, 'implicit') === 'yes' || attribute(first, 'number') === '0'
  const [head, ...rest] = bars
  const lengths =
    head && !isPickup && head.length < barTicks(head.metre)
      ? [{ ...head, length: barTicks(head.metre) }, ...rest]
      : bars
  const title = text(root, 'work', 'work-title') || text(root, 'movement-title') || 'Untitled'
  return assemble(
    { title: title.replace(/\s+/g, ' '), quarters: quartersIn(part), feel: feelIn(part), bars: lengths },
    leftOut,
  )
}
