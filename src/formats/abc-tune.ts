import { MOST, ok, printCount, type Result } from '../core/index.ts'
import type { AbcTune } from './abc-music.ts'
import { abcTunes, abcVoices } from './abc-voices.ts'
import { type Refusal, refuse } from './assemble.ts'

/** No tune is longer, has larger figures, more voices or more of them laid over each other: past this it is not read. */
const MOST_SIGNS = 200_000
const MOST_DIGITS = 4
const MOST_VOICES = 64
const MOST_OVERLAID = 64
const MOST_METRE = 40

/** Whether a line is one of these fields; `B:|` is a bar. */
const isField = (line: string, names: string): boolean =>
  line.charAt(1) === ':' && names.includes(line.charAt(0)) && !'|:'.includes(line.charAt(2) || ' ')
/** Fields that are words: figures in them count nothing. */
const WORDS = 'ABCDFGHNORSTWXZmrsw'

/** What a line of music says apart from chord symbols and words in quotes, which may hold any figure. */
const withoutQuotes = (line: string): string => {
  let kept = ''
  for (let from = 0; ; ) {
    const opens = line.indexOf('"', from)
    const closes = opens < 0 ? -1 : line.indexOf('"', opens + 1)
    if (closes < 0) return kept + line.slice(from)
    kept += line.slice(from, opens)
    from = closes + 1
  }
}

const longFigure = (line: string): string | null => {
  let digits = 0
  for (let i = 0; i <= line.length; i++) {
    const isDigit = line[i] !== undefined && line.charAt(i) >= '0' && line.charAt(i) <= '9'
    if (!isDigit && digits > MOST_DIGITS) return line.slice(i - digits, Math.min(i, i - digits + 12))
    digits = isDigit ? digits + 1 : 0
  }
  return null
}

/**
 * The text of a tune that the parser may see: an `X:` or a `K:` line is in it, and nothing in it makes the parser work
 * longer than its length says. Comments are left out.
 */
const tuneText = (source: string): Result<string, Refusal> => {
  if (source.length > MOST_SIGNS) return refuse(`A tune of more than ${printCount(MOST_SIGNS)} signs is not read.`)
  const lines: string[] = []
  let [isTune, voices, overlaid] = [false, 0, 0]
  for (const raw of source.split('\n')) {
    const line = raw.trimStart()
    if (line.startsWith('%') && !line.startsWith('%%')) continue
    // The library knows the sign for leaving to the coda by its words only.
    lines.push(raw.replaceAll('!dacoda!', '"^To Coda"'))
    isTune ||= isField(line, 'XK')
    if (isField(line, WORDS) || line.startsWith('%%')) continue
    if (isField(line, 'V')) voices++
    if (isField(line, 'M') && line.length > MOST_METRE) return refuse('Its metre is too long.')
    const [music = ''] = withoutQuotes(line).split('%', 1)
    const figure = longFigure(music)
    if (figure !== null) return refuse(`“${figure}” is too large a figure for a tune.`)
    for (const [, bars] of music.matchAll(/[XZ](\d+)/g))
      if (Number(bars) > MOST.bars) return refuse(`It rests for more than ${printCount(MOST.bars)} bars.`)
    overlaid += music.split('&').length - 1
  }
  if (!isTune) return refuse('This is no ABC tune: no X: and no K: line.')
  if (voices > MOST_VOICES) return refuse(`It has more than ${MOST_VOICES} voices.`)
  if (overlaid > MOST_OVERLAID) return refuse('Too many of its voices are laid over each other.')
  return ok(lines.join('\n'))
}

/** A voice of a tune as the library parses it alone. */
export interface ParsedVoice {
  readonly name: string
  readonly tune: AbcTune
}

/** The tunes of a text, each by its voices. The library's own failures are the file's, not ours. */
export const tunesIn = async (source: string): Promise<Result<readonly (readonly ParsedVoice[])[], Refusal>> => {
  const text = tuneText(source)
  if (!text.ok) return text
  const { default: abcjs } = await import('abcjs')
  try {
    const tunes = abcTunes(text.value).map((tune) =>
      abcVoices(tune).flatMap(({ name, text: alone }) => {
        const [parsed] = abcjs.parseOnly(alone) as unknown as readonly AbcTune[]
        return parsed ? [{ name, tune: parsed }] : []
      }),
    )
    return ok(tunes.filter((voices) => voices.length > 0))
  } catch {
    return refuse('The tune cannot be parsed.')
  }
}
