import type { Audit } from '../../core/index.ts'
import { beatText } from './words.ts'

type HeardNote = Audit['notes'][number]

const placeOf = ({ bar, beat }: HeardNote): string => `bar ${bar}, beat ${beatText(beat)}`

/** `bar 9, beats 1-2 1/2`, or from bar to bar. */
const between = (a: HeardNote, b: HeardNote): string =>
  a.bar === b.bar
    ? `in bar ${a.bar}, beats ${beatText(a.beat)}–${beatText(b.beat)}`
    : `from ${placeOf(a)} to ${placeOf(b)}`

const SPAN = /^Notes (\d+)-(\d+) /
const ONE_NAMED = /^Note (\d+), ([^,(]+(?: \([^)]*\))?), /
const ONE = /^Note (\d+) /

/**
 * A sentence of a verdict by bars and beats, as a player counts: `Notes 1-3 enclose G` becomes `The notes in bar 9, beats
 * 1–2 enclose G`, `Note 8, B, comes early` becomes `Bar 9, beat 2: B comes early`.
 */
export const sentenceByPlace = (text: string, notes: readonly HeardNote[]): string => {
  const at = (n: string | undefined): HeardNote | undefined => notes[Number(n) - 1]
  const span = SPAN.exec(text)
  const [first, last] = [at(span?.[1]), at(span?.[2])]
  if (span && first && last) return `The notes ${between(first, last)} ${text.slice(span[0].length)}`
  const named = ONE_NAMED.exec(text)
  const of = at(named?.[1])
  const rest = named && text.slice(named[0].length)
  if (named && of && rest !== null) return `Bar ${of.bar}, beat ${beatText(of.beat)}: ${named[2]} ${rest}`
  const one = ONE.exec(text)
  const note = at(one?.[1])
  return one && note ? `The note on ${placeOf(note)} ${text.slice(one[0].length)}` : text
}
