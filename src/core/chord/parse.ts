import { type Note, readNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import {
  buildChord,
  type Chord,
  type Harmony,
  NO_CHORD,
  type Quality,
  qualityOf,
  tonesOf,
  UNKNOWN_CHORD,
} from './chord.ts'
import { printQuality, printSymbol } from './print.ts'
import { readQuality } from './quality.ts'
import { USUAL_SPELLINGS } from './spellings.ts'

const NO_CHORD_FORMS = /^(N\.?C\.?|n\.c\.)$/

interface Usual {
  readonly quality: Quality
  readonly printed: string
}

const usual: ReadonlyMap<string, Usual> = new Map(
  USUAL_SPELLINGS.map((text) => {
    const read = readQuality(text, 0)
    if (!read.ok || read.value.end !== text.length) throw new Error(`not a chord quality: ${text}`)
    return [text, { quality: qualityOf(read.value.recipe), printed: printQuality(read.value.recipe) }]
  }),
)

/** Usual symbols as they were written, each with its chord: spelled once, and always the same object. */
const known = new Map<string, Chord>()

const finish = (text: string, at: number, root: Note): Result<Chord, TextError> => {
  const whole = usual.get(text.slice(at))
  if (whole) {
    const chord = buildChord(root, root, whole.quality, root.name + whole.printed)
    known.set(text, chord)
    return ok(chord)
  }
  const read = readQuality(text, at)
  if (!read.ok) return read
  const { recipe, end, expected } = read.value
  if (end === text.length) return ok(buildChord(root, root, qualityOf(recipe), printSymbol(root, root, recipe)))
  if (text.charAt(end) !== '/') return fail({ code: 'unknown_quality', at: end, found: text.slice(end), expected })
  const bass = readNote(text, end + 1)
  if (!bass.ok) return fail({ ...bass.error, code: 'unknown_note' })
  const { note, end: after } = bass.value
  if (after !== text.length)
    return fail({ code: 'unknown_quality', at: after, found: text.slice(after), expected: ['the end of the chord'] })
  return ok(buildChord(root, note, qualityOf(recipe), printSymbol(root, note, recipe)))
}

/** The upper chord over the lower: the lower one's root and recipe, the upper one's notes as stated tensions. */
export const buildPolychord = (upper: Chord, lower: Chord): Chord => {
  const above = tonesOf(upper).map((t) => pitchClass(t.note.pc - lower.root.pc))
  const quality = qualityOf(lower.quality.recipe, above)
  return buildChord(lower.root, lower.bass, quality, `(${upper.symbol}|${lower.symbol})`)
}

const readPolychord = (text: string): Result<Chord, TextError> => {
  const bar = text.indexOf('|')
  if (bar < 0 || !text.endsWith(')'))
    return fail({
      code: 'unclosed',
      at: text.length,
      found: '',
      expected: bar < 0 ? ['| and the lower chord, then )'] : [')'],
    })
  const upper = readChord(text.slice(1, bar))
  if (!upper.ok) return fail({ ...upper.error, at: upper.error.at + 1 })
  const lower = readChord(text.slice(bar + 1, -1))
  if (!lower.ok) return fail({ ...lower.error, at: lower.error.at + bar + 1 })
  return ok(buildPolychord(upper.value, lower.value))
}

/**
 * Reads a chord symbol as people write it on charts. Never guesses: what it does not know is an error with its place.
 * `readChord('Eb7(b9,13)')` is the dominant on E flat; `readChord('Cmaj77')` fails at 5.
 *
 *     chord   = root quality ["/" bass] | "(" chord "|" chord ")"
 *     root    = letter {"b" | "#" | "♭" | "♯" | "x"}
 *     quality = a usual spelling (`spellings.ts`), or what `readQuality` reads: a third and a seventh, then tensions,
 *               bare or in brackets with commas
 */
export const readChord = (text: string): Result<Chord, TextError> => {
  const before = known.get(text)
  if (before) return ok(before)
  if (text.startsWith('(')) return readPolychord(text)
  const root = readNote(text, 0)
  if (!root.ok) return fail({ ...root.error, expected: ['a chord, such as Eb7 or Am7b5'] })
  return finish(text, root.value.end, root.value.note)
}

/** A chord, `N.C.`, or `?` for one that is not known, as a chart may hold them. */
export const readHarmony = (text: string): Result<Harmony, TextError> =>
  text === '?' ? ok(UNKNOWN_CHORD) : NO_CHORD_FORMS.test(text) ? ok(NO_CHORD) : readChord(text)
