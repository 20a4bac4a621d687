import { XMLParser } from 'fast-xml-parser'
import { chordInterval, type Jumps, ok, type Result, TICKS_PER_QUARTER } from '../core/index.ts'
import { type Refusal, refuse } from './assemble.ts'
import { type JumpSign, jumpsOf, signOfWords } from './jumps.ts'

/** An element in document order. */
export type Node = Readonly<Record<string, unknown>>
const ATTRIBUTES = ':@'

const parser = new XMLParser({
  preserveOrder: true,
  ignoreAttributes: false,
  attributeNamePrefix: '',
  parseTagValue: false,
  parseAttributeValue: false,
  processEntities: true,
  htmlEntities: false,
})

export const nameOf = (node: Node): string => Object.keys(node).find((k) => k !== ATTRIBUTES) ?? ''
export const inside = (node: Node | undefined): readonly Node[] => {
  const found = node?.[nameOf(node)]
  return Array.isArray(found) ? (found as readonly Node[]) : []
}
export const all = (node: Node | undefined, name: string): readonly Node[] =>
  inside(node).filter((n) => nameOf(n) === name)
export const one = (node: Node | undefined, ...path: readonly string[]): Node | undefined =>
  path.reduce<Node | undefined>((at, name) => at && all(at, name)[0], node)
export const text = (node: Node | undefined, ...path: readonly string[]): string => {
  const [first] = inside(one(node, ...path))
  return first && '#text' in first ? String(first['#text']).trim() : ''
}
export const attribute = (node: Node | undefined, name: string): string | null => {
  const attributes = node?.[ATTRIBUTES] as Readonly<Record<string, string>> | undefined
  return attributes?.[name] ?? null
}
export const number = (found: string, otherwise = 0): number => {
  const n = Number(found)
  return found !== '' && Number.isFinite(n) ? n : otherwise
}

const OPENS = '<!DOCTYPE'
const MOST_BRACKETS = 200

/** A plain document: external document types are passed over, and nothing may be declared inside one. Null where it is. */
const withoutDoctype = (source: string): string | null => {
  const upper = source.toUpperCase()
  if (upper.includes('<!ENTITY')) return null
  let [kept, from] = ['', 0]
  for (let at = upper.indexOf(OPENS); at >= 0; at = upper.indexOf(OPENS, from)) {
    const end = source.indexOf('>', at)
    const inner = source.indexOf('[', at)
    if (end < 0) return null
    // Brackets with nothing in them declare nothing.
    if (inner >= 0 && inner < end && !/^\[\s*\]/.test(source.slice(inner, inner + MOST_BRACKETS))) return null
    kept += source.slice(from, at)
    from = end + 1
  }
  return kept + source.slice(from)
}

const MOST_WORDS = 120

/** A MusicXML score ordered by parts; or why it is none. */
export const scoreIn = (source: string): Result<Node, Refusal> => {
  // What stands before the declaration, a mark or an empty line, is no part of the document.
  const plain = withoutDoctype(source.replace(/^[\s\uFEFF]+/, ''))
  if (plain === null)
    return refuse('The file declares entities or a document type of its own; such files are not read.')
  let document: readonly Node[]
  try {
    document = parser.parse(plain, true) as readonly Node[]
  } catch (error) {
    const why = error instanceof Error ? error.message.slice(0, MOST_WORDS) : ''
    return refuse(`The file is no well-formed XML: ${why}`)
  }
  const root = document.find((n) => nameOf(n) === 'score-partwise')
  if (root) return ok(root)
  const timewise = document.some((n) => nameOf(n) === 'score-timewise')
  return refuse(timewise ? 'The score is ordered by time; save it by parts.' : 'This is no MusicXML score.')
}

/** How far a part sounds from what is written: 0 for one that does not transpose. */
export const shiftOf = (part: Node): { readonly letters: number; readonly semitones: number } => {
  const transpose = all(part, 'measure')
    .flatMap((m) => all(m, 'attributes').map((a) => one(a, 'transpose')))
    .find((t) => t !== undefined)
  const semitones = number(text(transpose, 'chromatic'))
  const letters = text(transpose, 'diatonic')
  return { semitones, letters: letters === '' ? chordInterval(semitones).letters : number(letters) }
}

const endingsOf = (measure: Node): readonly number[] => {
  const marks = all(measure, 'barline').flatMap((b) => all(b, 'ending'))
  const start = marks.find((e) => attribute(e, 'type') === 'start')
  return (attribute(start, 'number') ?? '')
    .split(/[,\s]+/)
    .map(Number)
    .filter((n) => Number.isInteger(n) && n > 0 && n < 10)
}
const SOUNDS = ['dacapo', 'dalsegno', 'tocoda', 'segno', 'coda', 'fine'] as const

/** Signs of a jump in a measure: what is to sound, what is drawn, what is said in words. */
const jumpSignsOf = (measure: Node): readonly JumpSign[] => {
  const directions = all(measure, 'direction')
  const sounds = [measure, ...directions].flatMap((n) => all(n, 'sound'))
  const said = SOUNDS.filter((s) => sounds.some((n) => attribute(n, s) !== null))
  const places = [...directions.flatMap((d) => all(d, 'direction-type')), ...all(measure, 'barline')]
  const drawn = (['segno', 'coda'] as const).filter((sign) => places.some((p) => one(p, sign) !== undefined))
  const words = places.flatMap((p) => all(p, 'words').flatMap((w) => signOfWords(text(w)) ?? []))
  const signs = [...new Set([...said, ...drawn, ...words])]
  // What leaves for the coda is drawn with its sign too.
  return signs.includes('tocoda') ? signs.filter((s) => s !== 'coda') : signs
}

const timesOf = (measure: Node): number =>
  Math.max(0, ...all(measure, 'barline').map((b) => number(attribute(one(b, 'repeat'), 'times') ?? '')))

/** What each measure of a part says of the form besides its repeat signs. */
export const jumpsIn = (measures: readonly Node[]): readonly (Jumps | undefined)[] => {
  const jumps = jumpsOf(measures.map(jumpSignsOf))
  return measures.map((m, i) => {
    const times = timesOf(m)
    return times > 2 ? { ...jumps[i], times: Math.min(times, MOST_PASSES) } : jumps[i]
  })
}
const MOST_PASSES = 20

const repeats = (measure: Node, direction: string): boolean =>
  all(measure, 'barline').some((b) => attribute(one(b, 'repeat'), 'direction') === direction)

/** The repeat signs and endings of a measure. */
export const repeatsOf = (measure: Node) => ({
  opens: repeats(measure, 'forward'),
  closes: repeats(measure, 'backward'),
  endings: endingsOf(measure),
})

/** A note that takes time of its own: the rest of a chord and graces do not. */
const takesTime = (note: Node): boolean => !one(note, 'chord') && !one(note, 'grace')

/**
 * Walks through a measure in time: each element with the tick from the measure's start at which it begins, and a reader of
 * its lengths. Gives the measure's length in ticks, and the divisions of a quarter that stand at its end.
 */
export const walkMeasure = (
  measure: Node,
  before: number,
  visit: (node: Node, at: number, ticksIn: (of: string) => number) => void,
): { readonly length: number; readonly divisions: number } => {
  let [at, length, divisions] = [0, 0, before]
  for (const node of inside(measure)) {
    const name = nameOf(node)
    const ticksIn = (of: string): number => (number(text(node, of)) * TICKS_PER_QUARTER) / divisions
    if (name === 'attributes') divisions = Math.max(1, number(text(node, 'divisions'), divisions))
    if (name === 'backup') at = Math.max(0, at - ticksIn('duration'))
    // The rest of a chord begins with its first note.
    const begins = name === 'note' && one(node, 'chord') ? at - ticksIn('duration') : at
    visit(node, begins, ticksIn)
    if (name === 'forward' || (name === 'note' && takesTime(node))) at += ticksIn('duration')
    length = Math.max(length, at)
  }
  return { length, divisions }
}
