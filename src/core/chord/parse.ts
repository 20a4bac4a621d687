import { type Note, readNote } from '../pitch/note.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import { buildChord, type Chord, type Harmony, NO_CHORD } from './chord.ts'
import { printSymbol } from './print.ts'
import { readQuality } from './quality.ts'

const NO_CHORD_FORMS = /^(N\.?C\.?|n\.c\.)$/

const finish = (text: string, at: number, root: Note): Result<Chord, TextError> => {
  const quality = readQuality(text, at)
  if (!quality.ok) return quality
  const { recipe, end } = quality.value
  if (end === text.length) return ok(buildChord(root, root, recipe, printSymbol(root, root, recipe)))
  if (text.charAt(end) !== '/')
    return fail({ code: 'unknown_quality', at: end, found: text.slice(end), expected: quality.value.expected })
  const bass = readNote(text, end + 1)
  if (!bass.ok) return fail({ ...bass.error, code: 'unknown_note' })
  if (bass.value.end !== text.length)
    return fail({
      code: 'unknown_quality',
      at: bass.value.end,
      found: text.slice(bass.value.end),
      expected: ['the end of the chord'],
    })
  return ok(buildChord(root, bass.value.note, recipe, printSymbol(root, bass.value.note, recipe)))
}

const readPolychord = (text: string): Result<Chord, TextError> => {
  const bar = text.indexOf('|')
  if (bar < 0 || !text.endsWith(')'))
    return fail({
      code: 'unclosed',
      at: bar < 0 ? text.length : text.length,
      found: '',
      expected: bar < 0 ? ['| and the lower chord, then )'] : [')'],
    })
  const upper = readChord(text.slice(1, bar))
  if (!upper.ok) return fail({ ...upper.error, at: upper.error.at + 1 })
  const lower = readChord(text.slice(bar + 1, -1))
  if (!lower.ok) return fail({ ...lower.error, at: lower.error.at + bar + 1 })
  const { value: low } = lower
  return ok(buildChord(low.root, low.bass, low, `(${upper.value.symbol}|${low.symbol})`, upper.value))
}

/**
 * Reads a chord symbol as people write it on charts. Never guesses: what it does not know is an error with its place.
 * `readChord('Eb7(b9,13)')` is the dominant on E flat; `readChord('Cmaj77')` fails at 5.
 */
export const readChord = (text: string): Result<Chord, TextError> => {
  if (text.startsWith('(')) return readPolychord(text)
  const root = readNote(text, 0)
  if (!root.ok) return fail({ ...root.error, expected: ['a chord, such as Eb7 or Am7b5'] })
  return finish(text, root.value.end, root.value.note)
}

/** A chord or `N.C.`, as a chart may hold them. */
export const readHarmony = (text: string): Result<Harmony, TextError> =>
  NO_CHORD_FORMS.test(text) ? ok(NO_CHORD) : readChord(text)
