/** A piece of text and where it starts in the whole. */
export interface Word {
  readonly text: string
  readonly at: number
}

/** What stands between two bar lines, with the repeat signs around it and the ending that starts with it. */
export interface Piece extends Word {
  readonly opens: boolean
  readonly closes: boolean
  readonly endings: readonly number[]
  /** A metre that begins with it, and one that begins with the next. */
  readonly metre: Word | null
  readonly then: Word | null
}

const METRE_FIRST = /^\s*(\d{1,2}\/(?:1|2|4|8|16|32|64))(?=\s|$)/
const METRE_LAST = /(?:^|\s)(\d{1,2}\/(?:1|2|4|8|16|32|64))\s*$/

const BAR_LINES = [':|:', '|:', ':|', '||', '|]', '|'] as const
const ENDING = /^(\s*)((?:[1-9][.,-]?)*[1-9]\.)(?=\s|\(|[A-G%N?]|$)/

/** `1.` is [1], `1.2.` and `1,2.` are [1, 2], `1-3.` is [1, 2, 3]. */
const passesOf = (mark: string): readonly number[] => {
  const range = /^([1-9])-([1-9])\.$/.exec(mark)
  const digits = [...mark].filter((c) => /\d/.test(c)).map(Number)
  const [low = 1, high = 1] = range ? [Number(range[1]), Number(range[2])] : []
  return range ? Array.from({ length: Math.max(0, high - low) + 1 }, (_, i) => low + i) : digits
}

const pieceOf = (whole: string, begin: number, opens: boolean, closes: boolean): Piece => {
  const [mark = '', , passes = ''] = ENDING.exec(whole) ?? []
  let [text, at] = [whole.slice(mark.length), begin + mark.length]
  const last = METRE_LAST.exec(text)
  const then = last ? { text: last[1] as string, at: at + last.index + last[0].indexOf(last[1] as string) } : null
  if (last) text = text.slice(0, last.index)
  const first = METRE_FIRST.exec(text)
  const metre = first ? { text: first[1] as string, at: at + first[0].length - (first[1] as string).length } : null
  if (first) [text, at] = [text.slice(first[0].length), at + first[0].length]
  return { text, at, opens, closes, endings: passes ? passesOf(passes) : [], metre, then }
}

/**
 * Cuts a line at its bar lines; one inside brackets belongs to a polychord. `waiting` says that a `|:` stood at the end
 * of the line before; the answer's says so of this line. What is empty between two bar lines is no bar, unless the line
 * has nothing else.
 */
export const cutBars = (
  line: string,
  offset: number,
  waiting: boolean,
): { readonly pieces: readonly Piece[]; readonly waiting: boolean } => {
  const pieces: Piece[] = []
  let [depth, from, opens] = [0, 0, waiting]
  let lines = 0
  const take = (end: number, closes: boolean): void => {
    const text = line.slice(from, end)
    const [last] = pieces.slice(-1)
    const piece = pieceOf(text, offset + from, opens, closes)
    if (text.trim() !== '') pieces.push(piece)
    else if (closes && last) pieces[pieces.length - 1] = { ...last, closes: true }
    if (piece.text.trim() !== '') opens = false
  }
  for (let i = 0; i < line.length; ) {
    const sign = depth === 0 ? BAR_LINES.find((l) => line.startsWith(l, i)) : undefined
    if (line[i] === '(') depth++
    else if (line[i] === ')') depth = Math.max(0, depth - 1)
    if (sign === undefined) {
      i++
      continue
    }
    take(i, sign.startsWith(':'))
    lines++
    i += sign.length
    from = i
    if (sign.endsWith(':')) opens = true
  }
  take(line.length, false)
  const isEmptyBar = pieces.length === 0 && lines > 1 && !line.includes(':')
  return { pieces: isEmptyBar ? [pieceOf('', offset + line.indexOf('|') + 1, false, false)] : pieces, waiting: opens }
}
