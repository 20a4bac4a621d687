import { readChord } from '../chord/parse.ts'
import { type Note, noteAbove, plainNote, readNote } from '../pitch/note.ts'

const STEPS: Readonly<Record<string, readonly [letters: number, up: number]>> = {
  I: [0, 0],
  II: [1, 2],
  III: [2, 4],
  IV: [3, 5],
  V: [4, 7],
  VI: [5, 9],
  VII: [6, 11],
}
const NUMBERS: Readonly<Record<string, string>> = {
  '1': 'I',
  '2': 'ii',
  '3': 'iii',
  '4': 'IV',
  '5': 'V',
  '6': 'vi',
  '7': 'vii',
}

const SPOKEN = ['one', 'two', 'three', 'four', 'five', 'six', 'seven']

/** What stands on a degree where its numeral says no more: by its case, in major and in minor. */
const MAJOR: Readonly<Record<string, string>> = {
  I: 'maj7',
  IV: 'maj7',
  VII: '7',
  II: '7',
  III: '7',
  VI: '7',
  V: '7',
  vii: 'm7b5',
}
const MINOR: Readonly<Record<string, string>> = {
  i: 'm6',
  ii: 'm7b5',
  III: 'maj7',
  iv: 'm7',
  V: '7',
  VI: 'maj7',
  VII: '7',
}

const NUMERAL = /^([b#♭♯]?)(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i|[1-7])(.*)$/
const IN_KEY =
  /^(?:(?:an?|the)\s+)?(?:(minor|major)\s+)?(.+?)\s+in\s+(?:the\s+key\s+of\s+)?([A-Ga-g])(b|#|♭|♯|\s+flat|\s+sharp)?\s*(m|min|minor|-|major|maj)?\s*$/

const onDegree = (tonic: Note, sign: string, numeral: string): Note => {
  const [letters, up] = STEPS[numeral.toUpperCase()] ?? [0, 0]
  const by = sign === '' ? 0 : /[b♭]/.test(sign) ? -1 : 1
  const note = noteAbove(tonic, letters, up + by)
  return Math.abs(note.alter) > 1 ? plainNote(note.pc) : note
}

/** A numeral's chord in a key: `ii` a minor seventh (half-diminished in minor), `VI7`, `bVIImaj7`, `2`. */
const chordOf = (word: string, tonic: Note, minor: boolean): string | null => {
  const [, sign = '', said = '', tail = ''] = NUMERAL.exec(word) ?? []
  if (!said) return null
  const numeral = NUMBERS[said] ?? said
  // In minor a number says no case: 2 5 1 are its own ii, V and i.
  const cased =
    minor && NUMBERS[said] && !['V', 'ii', 'III', 'VI', 'VII'].includes(numeral) ? numeral.toLowerCase() : numeral
  const lower = cased === cased.toLowerCase()
  const flat = sign !== '' && /[b♭]/.test(sign)
  const table = minor ? MINOR : MAJOR
  const usual = flat ? (lower ? 'm7' : cased === 'VII' ? '7' : 'maj7') : (table[cased] ?? (lower ? 'm7' : '7'))
  const symbol =
    onDegree(tonic, sign, cased).name +
    (tail === '' ? usual : (lower && !/^(m|-|ø|o|°|dim)/.test(tail) ? 'm' : '') + tail)
  return readChord(symbol).ok ? symbol : null
}

const chartOf = (chords: readonly string[], key?: string): string =>
  `${key ? `key = ${key}\n` : ''}| ${chords.join(' | ')} |`

/** `ii V I in Eb`, `2 5 1 in C minor`, `iii-VI-ii-V in F`: the text of a chart; null where it is none. */
export const numeralsIn = (text: string): string | null => {
  const [, said = '', words = '', letter = '', sign = '', mode = said] = IN_KEY.exec(text.trim()) ?? []
  const tonic = readNote(letter.toUpperCase() + sign.trim().replace('flat', 'b').replace('sharp', '#'), 0)
  if (!letter || !tonic.ok) return null
  const numerals = words
    .split(/[\s,–-]+/)
    .filter(Boolean)
    .map((w) => (SPOKEN.includes(w.toLowerCase()) ? String(SPOKEN.indexOf(w.toLowerCase()) + 1) : w))
  const minor = /^(m|min|minor|-)$/.test(mode) || numerals.at(-1) === 'i'
  const chords = numerals.map((n) => chordOf(n, tonic.value.note, minor))
  if (chords.length < 2 || chords.some((c) => c === null)) return null
  return chartOf(chords as readonly string[], `${tonic.value.note.name}${minor ? ' minor' : ''}`)
}

const isBareNote = (word: string): boolean => {
  const note = readNote(word, 0)
  return note.ok && note.value.end === word.length
}

/** Bare chords in a row, with bars, commas or arrows between: the text of a chart; null where they are none. */
export const chordsInARow = (text: string): string | null => {
  const bars = text
    .trim()
    .replace(/^\||\|$/g, '')
    .split(/\s*(?:\||->|→|,|\s[–-]\s)\s*/)
    .map((bar) => bar.split(/\s+/).filter(Boolean))
  const chords = bars.flat()
  if (chords.length < 2 || chords.every(isBareNote)) return null
  if (!chords.every((c) => readChord(c).ok || c === '%')) return null
  const barred = /\||,|->|→|\s[–-]\s/.test(text.trim().replace(/^\||\|$/g, ''))
  return barred ? `| ${bars.map((b) => b.join(' ')).join(' | ')} |` : chartOf(chords)
}
