import { degree } from '../pitch/degree.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import type { Recipe } from './chord.ts'
import type { Family } from './degree-names.ts'

type Triad = 'major' | 'minor' | 'diminished' | 'half-diminished' | 'augmented' | 'power'
type Row<T> = readonly [spelling: RegExp, meaning: T]

/** Words for the triad, tried in this order. */
const TRIAD_WORDS: readonly Row<Triad>[] = [
  [/^(min|mi|m(?!aj|a(?!dd))|-|−)/, 'minor'],
  [/^(dim|°|o(?=7|$|\(|\/))/, 'diminished'],
  [/^ø/, 'half-diminished'],
  [/^(aug|\+(?!\d*5))/, 'augmented'],
  [/^5(?!\d)/, 'power'],
]
const MAJOR_SEVENTH = /^(?:(?:maj|Maj|ma|Ma|M|j)|[Δ△∆^])/
const BRACKETED_MAJOR_SEVENTH = /^(maj|Maj|M|Δ|△|∆)7/
const NUMBER = /^(6\/9|69|13|11|9|7|6)/
const SUSPENSION = /^sus(4|2(?!\d))?/
/** `Csus7`, `Csus9`: the suspension written before its seventh. */
const SUSPENDED_SEVENTH = /^sus(7|9|13)(?!\d)/
/** `C2` and `C4`: a triad with its third suspended. */
const BARE_SUSPENSION = /^(2|4)(?!\d)/
/** `Cm+7`: minor with a major seventh. */
const RAISED_SEVENTH = /^\+7/
/** `C7+`: the fifth raised, written last. */
const RAISED_FIFTH = /^\+(?!\d)/
const ALTERATION = /^(bb|b|♭|-|−|#|♯|\+)(5|9|11|13)(?!\d)/
const ADDED = /^(add)?([b#♭♯]?)(2|4|6|9|11|13)(?!\d)/
const OMITTED = /^(?:no|omit)\s?(3|5)(?:rd|th)?/

const EXPECTED = ['maj7', 'm7', '7', 'm7b5', 'dim7', '6', 'sus4', 'b9', '#11', '/bass']
const TAIL_EXPECTED = ['b9', '#9', '#11', 'b13', 'sus4', 'add9', 'no3', '/bass', 'the end of the chord']

interface Draft {
  triad: Triad
  sus: '4' | '2' | null
  fifth: string | null
  seventh: string | null
  majorSeventh: boolean
  altered: boolean
  tensions: Set<string>
  omitted: Set<'3' | '5'>
}

interface Cursor {
  readonly text: string
  at: number
}

const take = (c: Cursor, pattern: RegExp): RegExpExecArray | null => {
  const match = pattern.exec(c.text.slice(c.at))
  if (match) c.at += match[0].length
  return match
}

const accidental = (sign: string): string =>
  sign === '♭' || sign === '-' || sign === '−' ? 'b' : sign === '♯' || sign === '+' ? '#' : sign

const SEVENTH_OF: Readonly<Record<Triad, string>> = {
  major: 'b7',
  minor: 'b7',
  augmented: 'b7',
  power: 'b7',
  'half-diminished': 'b7',
  diminished: 'bb7',
}

/** The number after the triad and what it brings: 9 an added ninth, 13 a ninth and a thirteenth. */
const takeNumber = (c: Cursor, d: Draft): void => {
  const from = c.at
  const number = take(c, NUMBER)?.[1]
  if (number === undefined) {
    if (d.majorSeventh) d.seventh = '7'
    return
  }
  const impossible = d.triad === 'diminished' && !d.majorSeventh && number !== '7'
  if (d.triad === 'power' || impossible || (d.majorSeventh && number.startsWith('6'))) {
    c.at = from
    return
  }
  if (number.startsWith('6')) d.seventh = '6'
  else d.seventh = d.majorSeventh ? '7' : SEVENTH_OF[d.triad]
  if (number === '6/9' || number === '69' || number === '9') d.tensions.add('9')
  if (number === '11' || number === '13') for (const t of ['9', number]) d.tensions.add(t)
}

/** What is scribbled right after the triad: `C2`, `C4`, `Cm+7`, `C-b6`. */
const takeScribble = (c: Cursor, d: Draft): void => {
  if (d.triad === 'major' && !d.majorSeventh) {
    const sus = take(c, BARE_SUSPENSION)?.[1]
    if (sus === '2' || sus === '4') d.sus = sus
  }
  if (d.triad !== 'minor') return
  if (take(c, RAISED_SEVENTH)) {
    d.seventh = '7'
    d.majorSeventh = true
  }
  if (take(c, /^b6(?!\d)/)) d.tensions.add('b13')
}

const contradiction = (at: number, found: string, expected: string): Result<never, TextError> =>
  fail({ code: 'contradiction', at, found, expected: [expected] })

/** A natural tension an alteration of the same step takes the place of: 13b9 has no natural ninth. */
const alter = (d: Draft, name: string): string | null => {
  if (name === 'b5' || name === '#5') {
    if (d.fifth !== null && d.fifth !== name) return 'one fifth only'
    d.fifth = name
    return null
  }
  const step = degree(name).step
  d.tensions.delete(String(step))
  d.tensions.add(name)
  return null
}

/** `sus7` after the root: a suspended dominant. */
const takeSuspendedSeventh = (c: Cursor, d: Draft): boolean => {
  if (d.triad !== 'major' || d.seventh !== null || d.sus !== null) return false
  const number = take(c, SUSPENDED_SEVENTH)?.[1]
  if (number === undefined) return false
  d.sus = '4'
  d.seventh = 'b7'
  if (number !== '7') d.tensions.add('9')
  if (number === '13') d.tensions.add('13')
  return true
}

const takeItem = (c: Cursor, d: Draft, bracketed: boolean): Result<boolean, TextError> => {
  const from = c.at
  const rest = c.text.slice(c.at)
  if (takeSuspendedSeventh(c, d)) return ok(true)
  if (d.triad === 'major' && d.seventh === 'b7' && d.fifth === null && take(c, RAISED_FIFTH)) {
    d.fifth = '#5'
    return ok(true)
  }
  const sus = take(c, SUSPENSION)
  if (sus) {
    if (d.sus !== null || d.triad !== 'major') return contradiction(from, sus[0], 'one third only')
    d.sus = sus[1] === '2' ? '2' : '4'
    return ok(true)
  }
  if (take(c, /^alt/)) {
    if ((d.seventh !== null && d.seventh !== 'b7') || d.triad !== 'major' || d.sus)
      return contradiction(from, 'alt', 'alt after a dominant seventh')
    d.altered = true
    d.seventh = 'b7'
    return ok(true)
  }
  const omitted = take(c, OMITTED)
  if (omitted) {
    d.omitted.add(omitted[1] as '3' | '5')
    return ok(true)
  }
  if (bracketed && d.seventh === null && take(c, BRACKETED_MAJOR_SEVENTH)) {
    d.seventh = '7'
    d.majorSeventh = true
    return ok(true)
  }
  const altered = take(c, ALTERATION)
  if (altered) {
    const name = accidental(altered[1] ?? '') + altered[2]
    const problem = name.startsWith('bb') || name === '#13' || name === 'b11' ? 'b9, #9, #11 or b13' : alter(d, name)
    return problem ? contradiction(from, altered[0], problem) : ok(true)
  }
  const added = ADDED.exec(rest)
  if (added && (added[1] || bracketed)) {
    c.at += added[0].length
    const high: Record<string, string> = { '2': '9', '4': '11', '6': '13' }
    const name = accidental(added[2] ?? '') + (high[added[3] ?? ''] ?? added[3])
    if (name === '13' && d.seventh === null) d.seventh = '6'
    else if (['9', 'b9', '#9', '11', '#11', '13', 'b13'].includes(name)) d.tensions.add(name)
    else return contradiction(from, added[0], 'a ninth, eleventh or thirteenth')
    return ok(true)
  }
  return ok(false)
}

const takeTail = (c: Cursor, d: Draft): Result<true, TextError> => {
  let open = -1
  for (;;) {
    if (open >= 0) take(c, /^[\s,]+/)
    else take(c, /^,\s?(?=[b#♭♯\d])/)
    if (open < 0 && take(c, /^\((?!.*\|)/)) open = c.at - 1
    else if (open >= 0 && take(c, /^\)/)) open = -1
    else {
      const afterComma = c.text.charAt(c.at - 1) === ','
      const item = takeItem(c, d, open >= 0 || afterComma)
      if (!item.ok) return item
      if (!item.value) break
    }
  }
  if (open < 0) return ok(true)
  const rest = c.text.slice(c.at)
  return rest
    ? fail({
        code: 'unknown_quality',
        at: c.at,
        found: rest.replace(/\)$/, ''),
        expected: ['b9', '#9', '#11', 'b13', '13', ')'],
      })
    : fail({ code: 'unclosed', at: c.at, found: '', expected: [')'] })
}

const thirdOf = (d: Draft): string | null => {
  if (d.sus !== null) return d.sus
  if (d.triad === 'power') return null
  return d.triad === 'major' || d.triad === 'augmented' ? '3' : 'b3'
}

const familyOf = (third: string | null, fifth: string, seventh: string | null, sus: boolean): Family => {
  if (sus) return 'suspended'
  if (third === null) return 'power'
  if (third === '3') {
    if (seventh === 'b7') return 'dominant'
    return fifth === '#5' ? 'augmented' : 'major'
  }
  if (fifth !== 'b5' || seventh === '6') return 'minor'
  return seventh === 'b7' ? 'half-diminished' : 'diminished'
}

const toRecipe = (d: Draft): Recipe => {
  const ownFifth: Record<Triad, string> = {
    major: '5',
    minor: '5',
    power: '5',
    augmented: '#5',
    diminished: 'b5',
    'half-diminished': 'b5',
  }
  const noThirdLeft = d.omitted.has('3') && d.seventh === null && d.tensions.size === 0
  const third = noThirdLeft && d.sus === null ? null : thirdOf(d)
  const fifth = d.fifth ?? ownFifth[d.triad]
  if (d.tensions.has('b9') && d.sus === '4' && d.seventh === null) d.seventh = 'b7'
  const family = familyOf(third, fifth, d.seventh, d.sus !== null)
  const order = [...d.tensions].sort((a, b) => degree(a).step - degree(b).step || degree(a).alter - degree(b).alter)
  const omitsThird = d.omitted.has('3') && third !== null
  return {
    family,
    third: omitsThird ? null : third,
    fifth: d.omitted.has('5') || d.altered ? (d.altered ? d.fifth : null) : fifth,
    seventh: d.seventh,
    tensions: order,
    altered: d.altered,
    omitted: [...(omitsThird ? (['3'] as const) : []), ...(d.omitted.has('5') ? (['5'] as const) : [])],
  }
}

/**
 * Reads everything between the root and a slash bass. Gives the recipe, where it ends, and what could have stood there.
 * Errors carry the position within `text`.
 */
export const readQuality = (
  text: string,
  at: number,
): Result<{ recipe: Recipe; end: number; expected: readonly string[] }, TextError> => {
  const c: Cursor = { text, at }
  const d: Draft = {
    triad: 'major',
    sus: null,
    fifth: null,
    seventh: null,
    majorSeventh: false,
    altered: false,
    tensions: new Set(),
    omitted: new Set(),
  }
  const word = TRIAD_WORDS.find(([pattern]) => pattern.test(text.slice(c.at)))
  if (word) {
    take(c, word[0])
    d.triad = word[1]
    if (word[1] === 'half-diminished') d.seventh = 'b7'
  }
  const major = take(c, MAJOR_SEVENTH)
  if (major) {
    const symbol = /[Δ△∆^]/.test(major[0])
    d.majorSeventh = symbol || /^(7|9|11|13)/.test(text.slice(c.at))
    if (word && !d.majorSeventh)
      return fail({ code: 'unknown_quality', at: c.at, found: text.slice(c.at), expected: ['7'] })
  }
  takeScribble(c, d)
  takeNumber(c, d)
  const tail = takeTail(c, d)
  if (!tail.ok) return tail
  return ok({ recipe: toRecipe(d), end: c.at, expected: c.at === at ? EXPECTED : TAIL_EXPECTED })
}
