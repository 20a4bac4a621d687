import { type Chord, tonesOf } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { degree } from '../pitch/degree.ts'
import { toAscii } from '../pitch/glyphs.ts'
import { type Note, readNote } from '../pitch/note.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import { CHANGED_PENTATONICS } from './changed.ts'
import { MATERIALS, type Material, materialOf } from './material.ts'
import { notesOverlay, type Overlay, pairOf, placeOn } from './overlay.ts'

/** How many single signs must change to make one word of another. */
const editsBetween = (a: string, b: string): number => {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, (row[j - 1] ?? 0) + Number(a[i - 1] !== b[j - 1])))
    row = next
  }
  return row[b.length] ?? 0
}

const fold = (words: string): string => toAscii(words).trim().replace(/\s+/g, ' ').toLowerCase()

const worded = new Map<string, Material>()
for (const m of [...MATERIALS, ...CHANGED_PENTATONICS])
  for (const name of [m.name, ...m.otherNames]) if (!worded.has(fold(name))) worded.set(fold(name), m)

const arpeggios = new Map(
  MATERIALS.filter((m) => m.family === 'seventh' || m.family === 'ninth').map((m) => [
    m.name.replace(' arpeggio', ''),
    m,
  ]),
)
const triads = new Map(MATERIALS.filter((m) => m.family === 'triad').map((m) => [m.name, m]))

const MATERIAL_EXAMPLES = ['minor pentatonic', 'dorian', 'half-whole', 'lydian dominant', 'm7b5 arpeggio']

const SUGGESTED = 3

/** How many signs may differ for one word to be near another. */
const nearness = (a: string, b: string): number => Math.max(1, Math.floor(Math.min(a.length, b.length) / 3))

/** Words asked about lately, with what is near them: one text that is not understood is tried in several ways. */
const lately = new Map<string, readonly string[]>()
const REMEMBERED = 50

/** The names most like a word that is not known; plain examples where none comes near. */
export const nearestNames = (wrong: string): readonly string[] => {
  const word = fold(wrong)
  const known = lately.get(word)
  if (known) return known
  const near = [...worded.keys()]
    .filter((name) => Math.abs(name.length - word.length) <= nearness(word, name))
    .map((name) => ({ name, edits: editsBetween(word, name) }))
    .filter(({ name, edits }) => edits <= nearness(word, name))
    .sort((a, b) => a.edits - b.edits)
  const found = near.length > 0 ? near.slice(0, SUGGESTED).map((n) => n.name) : MATERIAL_EXAMPLES
  if (lately.size >= REMEMBERED) lately.clear()
  lately.set(word, found)
  return found
}

/** `Em7b5`, `E dim7`, `Esus`: a chord's symbol used as a material, with or without the word arpeggio or triad. */
const bySymbol = (root: Note, words: string): Material | undefined => {
  const suffix = words.trim().replace(/\s*(arpeggio|arp|triad)$/, '')
  const chord = readChord(root.name + suffix)
  if (!chord.ok || chord.value.bass !== chord.value.root) return undefined
  const quality = chord.value.symbol.slice(root.name.length)
  return (
    arpeggios.get(quality) ??
    triads.get(quality === '(b5)' ? 'major b5 triad' : quality) ??
    arpeggioOf(quality, chord.value)
  )
}

/** The arpeggio of a chord the catalogue has none for: an eleventh, a thirteenth, an altered dominant. */
const arpeggioOf = (quality: string, chord: Chord): Material | undefined => {
  const formula = tonesOf(chord).map((t) => degree(t.degree))
  return formula.length > 3 && formula.length < 8 ? materialOf('ninth', `${quality} arpeggio`, formula, []) : undefined
}

/** The material that words call, on a root: by its name or another name, or by a chord's symbol. */
export const materialCalled = (root: Note, words: string): Material | undefined => {
  const exact = words.trim()
  return (
    worded.get(exact) ??
    bySymbol(root, exact) ??
    worded.get(fold(exact)) ??
    worded.get(fold(exact).replace(/ (scale|mode)$/, ''))
  )
}

const readNotes = (text: string): Overlay | null => {
  const notes: Note[] = []
  for (const piece of text.trim().split(/[\s,]+/)) {
    const read = readNote(piece, 0)
    if (!read.ok || read.value.end !== piece.length) return null
    notes.push(read.value.note)
  }
  const [first, second, ...rest] = notes
  return first && second ? notesOverlay([first, second, ...rest]) : null
}

/** `E flat minor` and `half whole on E` in the usual order, or null where they are neither. */
const usualOrder = (text: string): string | null => {
  const spoken = text.replace(
    /\b([A-Ga-g]) (flat|sharp)\b/,
    (_, letter: string, sign: string) => letter.toUpperCase() + (sign === 'flat' ? 'b' : '#'),
  )
  const turned = /^\s*(\D*\S)\s+on\s+([A-G]\S*)\s*$/.exec(spoken)
  const plain = turned ? `${turned[2]} ${turned[1]}` : spoken
  const raised = plain.replace(
    /^(\s*)([a-g])(?=(b|#|♭|♯)?\s+[a-z])/,
    (_, space: string, letter: string) => space + letter.toUpperCase(),
  )
  return raised === text ? null : raised
}

const readSingle = (text: string): Result<Overlay, TextError> => {
  const asWritten = readRooted(text)
  const other = asWritten.ok ? null : usualOrder(text)
  const again = other === null ? asWritten : readRooted(other)
  return again.ok ? again : asWritten
}

/** A root and a name just as the catalogue has it: what is asked most, without a look at anything else it could be. */
const readPlain = (text: string): Overlay | null => {
  const root = readNote(text, 0)
  const material = root.ok ? worded.get(text.slice(root.value.end + 1)) : undefined
  return root.ok && material && text.charAt(root.value.end) === ' ' ? placeOn(root.value.note, material) : null
}

const readRooted = (text: string): Result<Overlay, TextError> => {
  const lead = text.length - text.trimStart().length
  const root = readNote(text, lead)
  if (!root.ok)
    return fail({ ...root.error, at: text.trim() ? lead : 0, expected: ['a root, such as Bb, and what stands on it'] })
  const words = text.slice(root.value.end)
  const exact = words.trim()
  const material = materialCalled(root.value.note, words)
  if (material) return ok(placeOn(root.value.note, material))
  const at = root.value.end + (words.length - words.trimStart().length)
  return fail({ code: 'unknown_material', at, found: exact, expected: nearestNames(exact) })
}

/**
 * Reads what is laid over a chord: `B minor pentatonic`, `B+`, `Em7b5 arpeggio`, two triads joined by `&`, or bare
 * notes (`Gb B C#`). Errors carry the place of the word that is not known.
 *
 *     overlay = single | triad ("&" | ",") triad | note { [","] note }      two bare notes at least
 *     single  = root [name] | name "on" root    no name: the major triad
 *     root    = letter ["b" | "#" | " flat" | " sharp"]
 *     name    = any name of the catalogue, its symbol, or another name of it
 */
export const readOverlay = (text: string): Result<Overlay, TextError> => {
  const plain = readPlain(text)
  if (plain) return ok(plain)
  if (!text.trim())
    return fail({ code: 'empty', at: 0, found: '', expected: ['what to lay over, such as B minor pentatonic'] })
  const single = text.includes('&') ? null : (readNotes(text) ?? readSingle(text))
  if (single !== null && !('ok' in single)) return ok(single)
  if (single?.ok) return single
  const joint = text.search(/[&,]/)
  if (single !== null && joint < 0) return single
  const first = readTriad(text, 0, joint)
  if (!first.ok) return first
  const second = readTriad(text, joint + 1, text.length)
  if (!second.ok) return second
  return ok(pairOf(first.value, second.value))
}

const readTriad = (text: string, from: number, to: number): Result<Overlay, TextError> => {
  const piece = text.slice(from, to)
  const read = readSingle(piece)
  if (!read.ok) return fail({ ...read.error, at: piece.trim() ? read.error.at + from : from })
  if (read.value.material?.family === 'triad') return read
  const at = from + (piece.length - piece.trimStart().length)
  return fail({ code: 'unknown_material', at, found: piece.trim(), expected: ['a triad, such as Ab or Bb+'] })
}
