import { jobFromNext } from '../chart/job.ts'
import { readChart } from '../chart/read-chart.ts'
import type { Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { nearestNames, readOverlay } from '../material/read-overlay.ts'
import { isDegree } from '../pitch/degree.ts'
import { toAscii } from '../pitch/glyphs.ts'
import type { FamilyName } from '../reading/candidates.ts'
import { placeOf } from '../reading/read.ts'
import type { School } from '../reading/school.ts'
import { chordsInARow, numeralsIn } from './progressions.ts'
import type { Question } from './question.ts'
import { capital } from './roots.ts'
import { fiveOf, readSpoken, tritonePartnerOf } from './spoken.ts'

const OVER =
  /\s+(?:(?:go|goes|fit|fits|work|works)\s+(?:over|on|for|with)|over|against|in front of|on top of|for)\s+(?:an?\s+|the\s+)?/i
const ON = /\s+on\s+(?:an?\s+)?(?!the\s)/gi
const ASKED =
  /^(?:how (?:far )?(?:out|outside|in|inside) (?:is|are)|(?:what|how)(?:'s| is| are| about)|(?:show|give|tell) me|name)\s+(?:(?:an?|the)\s+)?(?:notes (?:of|in)\s+)?/i
/** What is asked about, without the words that ask: of `how far out is F over C7` what follows `is`. */
export const withoutAsking = (text: string): string =>
  text
    .trim()
    .replace(ASKED, '')
    .replace(/\?\s*$/, '')
const TO = /\s*(?:->|→|=>)\s*|\s+(?:resolving to|resolves to|going to|goes to|moving to|into|to)\s+(?:an?\s+|the\s+)?/i
const WHILE = /\s+while\s+(.+?)(?:\s+sounds?)?\s*$/i

/** Chords as they are spoken: `C minor 7`, `E flat dominant 7th`, `G half diminished`. */
const SPOKEN_CHORD: readonly (readonly [RegExp, string])[] = [
  [/\s+chord$/i, ''],
  [/^([A-G])\s+flat\b/, '$1b'],
  [/^([A-G])\s+sharp\b/, '$1#'],
  [/\s+five\b/gi, ' 5'],
  [/\s+six\b/gi, ' 6'],
  [/\s+seven(th)?\b/gi, ' 7'],
  [/\s+nine\b/gi, ' 9'],
  [/\s+eleven\b/gi, ' 11'],
  [/\s+thirteen\b/gi, ' 13'],
  [/\s+sharp\s+(?=\d)/gi, '#'],
  [/\s+flat\s+(?=\d)/gi, 'b'],
  [/\s*\b(\d+)th\b/i, ' $1'],
  [/\s*half[\s-]dim(inished)?\b.*/i, 'm7b5'],
  [/\s*dim(inished)?\s*7?$/i, 'dim7'],
  [/\s*maj(or)?\s*7/i, 'maj7'],
  [/\s*min(or)?\s+(6|7|9|11)/i, 'm$2'],
  [/\s*dom(inant)?\s*7?$/i, '7'],
  [/\s+altered$/i, '7alt'],
  [/\s+minor$/i, 'm'],
  [/\s+major$/i, ''],
]

const spokenChord = (text: string): Chord | null => {
  const typed = toAscii(text).trim()
  if (/^[a-g]$/.test(typed)) return null
  const raised = capital(typed)
  const said = SPOKEN_CHORD.reduce((words, [pattern, as]) => words.replace(pattern, as), raised)
  for (const words of [typed, raised, said, said.replace(/\s+/g, '')]) {
    const read = readChord(words)
    if (read.ok) return read.value
  }
  return null
}

interface Where {
  readonly chord: Chord
  readonly next: Chord | null
  readonly sounding: Chord | null
}

const whereIn = (bars: string): Where | null => {
  const text = bars.trim().replace(/^\|\s*|\s*\|$/g, '')
  const [, heard] = WHILE.exec(text) ?? []
  const sounding = heard === undefined ? null : spokenChord(heard)
  const rest = text.replace(WHILE, '')
  const to = TO.exec(rest)
  const [first, then] = to ? [rest.slice(0, to.index), rest.slice(to.index + to[0].length)] : [rest, null]
  const five = fiveOf(first)
  const chord = five?.dominant ?? spokenChord(first)
  const next = then === null ? (five?.goal ?? null) : spokenChord(then)
  if (!chord || (then !== null && !next) || (heard !== undefined && !sounding)) return null
  return { chord, next, sounding }
}

/** `minor pentatonic on the 5th of Db7`: the degree is that chord's, and it is laid over it. */
const OF_CHORD = /^(.*\s(?:from|on|off)\s+the\s+\S+)\s+of\s+(?:an?\s+|the\s+)?(\S.*)$/i

/** The words before the chord and the chord they are laid over: at `over` and its like, else at an `on` before a chord. */
const splitOver = (text: string): readonly [string, Where][] => {
  const over = OVER.exec(text)
  if (over) {
    const where = whereIn(text.slice(over.index + over[0].length))
    return where ? [[text.slice(0, over.index), where]] : []
  }
  const [, what = '', of = ''] = OF_CHORD.exec(text) ?? []
  const own = of === '' ? null : whereIn(of)
  if (own) return [[what, own]]
  return [...text.matchAll(ON)].flatMap((m): readonly [string, Where][] => {
    const where = whereIn(text.slice(m.index + m[0].length))
    return where ? [[text.slice(0, m.index), where]] : []
  })
}

const WHAT_TO_PLAY =
  /^(?:what|which(?: ones?)?)\s+(?:can|could|should|do|would|might)\s+(?:i|you|we|one)\s+(?:play|use|lay|try|put|superimpose)$|^(?:what(?:'s| is)?\s+(?:works|fits|goes|sounds good|to play|good)|options|ideas|what to play|suggestions|what|overlays|anything)$/i
const PAIRS = /^(?:(?:which|what|all|some|the)\s+)?(?:triad\s+)?pairs?(?:\s+of\s+triads)?$/i

const KINDS: Readonly<Record<string, readonly FamilyName[]>> = {
  triad: ['triad'],
  pentatonic: ['pentatonic'],
  arpeggio: ['seventh', 'ninth'],
  seventh: ['seventh'],
  scale: ['mode', 'symmetric', 'bebop', 'blues'],
  mode: ['mode'],
  pair: ['pair'],
  'triad pair': ['pair'],
  'upper structure': ['triad'],
}
const KIND = Object.keys(KINDS)
  .sort((a, b) => b.length - a.length)
  .join('|')
const WHICH = new RegExp(
  `^(?:(?:which|what|find|show|some|any|(?:the )?best|good) (${KIND})s?|(${KIND})s)(?: triads?)?(?: (?:(?:can|could|should|do) (?:i|you|we) (?:play|use)|work|fit|goes|go))?(?: (?:that )?(?:holds?|has|have|contains?|gives?|makes?|with) (.+))?$`,
  'i',
)
const HOLDS = /^(?:what|which)\s+(?:holds?|has|have|contains?|gives?|makes?)\s+(.+)$/i

const degreesIn = (words: string): readonly string[] | null => {
  const names = toAscii(words)
    .replace(/\b(?:the|a|and|both)\b/gi, ' ')
    .split(/[\s,]+/)
    .filter(Boolean)
    .map((w) => w.replace(/(?<=\d)(?:st|nd|rd|th)$/, ''))
  return names.length > 0 && names.every(isDegree) ? names : null
}

const overlaysIn = (words: string, { chord, next }: Where): Question | null => {
  if (PAIRS.test(words)) return { kind: 'pairs', chord, next }
  if (WHAT_TO_PLAY.test(words)) return { kind: 'overlays', hold: [], families: null, chord, next }
  const [, asked, several, held] = WHICH.exec(words) ?? []
  const kind = asked ?? several
  if (kind) {
    const hold = held === undefined ? [] : degreesIn(held)
    return hold && { kind: 'overlays', hold, families: KINDS[kind.toLowerCase()] ?? null, chord, next }
  }
  const hold = degreesIn(HOLDS.exec(words)?.[1] ?? '')
  return hold && { kind: 'overlays', hold, families: null, chord, next }
}

/** The words of a question for overlays, such that it is understood again. */
export const overlaysWords = ({ hold, families }: Extract<Question, { kind: 'overlays' }>): string => {
  if (families === null) return hold.length > 0 ? `what holds ${hold.join(' ')}` : 'what can I play'
  const kind = Object.entries(KINDS).find(([, all]) => all.join() === families.join())?.[0] ?? 'triad'
  return `which ${kind}s${hold.length > 0 ? ` hold ${hold.join(' ')}` : ''}`
}

const laidOver = (words: string, where: Where, school: School): Question | null => {
  const { chord, next, sounding } = where
  const place = placeOf(chord, next, school, jobFromNext(chord, next))
  const overlay = readSpoken(words, place)
  return overlay && { kind: 'reading', overlay, chord, next, sounding }
}

const chartIn = (text: string): Question | null => {
  const rows = numeralsIn(toAscii(text)) ?? chordsInARow(toAscii(text).replace(/\s+(?:to|into|then)\s+/gi, ' '))
  const read = rows === null ? null : readChart(rows)
  return rows !== null && read?.ok ? { kind: 'chart', chart: read.value, text: rows } : null
}

/** A question as players say it; null where it is not understood. Source: the HTTP contract, a player's words. */
export const readSpokenQuestion = (typed: string, school: School): Question | null => {
  const text = toAscii(typed)
    .replace(/[?!.]+\s*$/, '')
    .replace(/\s+/g, ' ')
    .trim()
  if (text === '') return null
  const chart = chartIn(text)
  if (chart) return chart
  for (const [words, where] of splitOver(text)) {
    const asked = overlaysIn(words.trim(), where) ?? laidOver(words, where, school)
    if (asked) return asked
  }
  if (OVER.test(` ${text} `)) return null
  const chord = fiveOf(text)?.dominant ?? tritonePartnerOf(text) ?? spokenChord(text)
  if (chord) return { kind: 'chord', chord }
  const overlay = readSpoken(text, null)
  return overlay && { kind: 'material', overlay }
}

/** The longest beginning of a word that is a chord. */
const longestChord = (word: string): string | null => {
  for (let end = word.length - 1; end > 1; end--) if (readChord(word.slice(0, end)).ok) return word.slice(0, end)
  return null
}

const MOST_MEANT = 3
/** A material without root or chord is asked about over some chord. */
const SOMEWHERE = ' over C7'

/** Questions near one that was not understood: another name for what is laid, or what can be asked over its chord. */
export const perhapsMeant = (typed: string, school: School): readonly string[] => {
  const text = toAscii(typed).replace(/\s+/g, ' ').trim()
  const chord = /\s/.test(text) ? null : longestChord(text)
  if (chord) return [chord]
  const [split] = splitOver(text)
  const over = split ? ` over ${split[1].chord.symbol}${split[1].next ? ` to ${split[1].next.symbol}` : ''}` : ''
  const words = (split ? split[0] : text).trim()
  const [, root = '', rest = ''] = /^([A-G](?:bb|##|[b#])?)\s*(.*)$/.exec(words) ?? [null, '', words]
  const on = over || root ? over : SOMEWHERE
  const names = rest === '' ? [] : nearestNames(rest).map((name) => `${root ? `${root} ` : ''}${name}${on}`)
  const asks = over ? [`what can I play${over}`, `pairs${over}`] : []
  const known = (question: string): boolean => readSpokenQuestion(question, school) !== null || readOverlay(question).ok
  const near = asks.length > 0 ? names.slice(0, MOST_MEANT - 1) : names
  return [...near, ...asks].filter(known).slice(0, MOST_MEANT)
}
