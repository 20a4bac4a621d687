import {
  type Interval,
  type ItemOf,
  readChord,
  readOverlay,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import type { CardFigures } from '../../state/practice/figures.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { dayWords } from '../overlay/day-words.ts'

const share = (part: number | null): string => (part === null ? '–' : `${Math.round(part * 100)} of 100`)

/** Every figure of a card, unfolded. */
export const cardRows = (card: CardFigures): readonly (readonly [string, string])[] => [
  ['tempo now', String(card.tempo)],
  ['fastest clean', card.best === null ? '–' : String(card.best)],
  ['rounds', String(card.rounds)],
  ['clean', share(card.share)],
  ['last played', dayWords(card.last)],
  ['due', card.due === null ? 'not yet begun' : dayWords(card.due)],
  ['still held now', share(card.held)],
  ['held nine in ten for', card.stability === null ? '–' : `${Math.max(1, Math.round(card.stability))} days`],
  ['difficulty, 1 to 10', card.difficulty === null ? '–' : card.difficulty.toFixed(1)],
]

const KINDS: Readonly<Record<string, string>> = {
  overlay: 'overlay',
  pair: 'pair',
  route: 'route',
  line: 'line',
  study: 'study',
  quiz: 'quiz',
  'out-in': 'out and in',
  combine: 'apart, then together',
}
const overlayIn = (name: string, by: Interval): string => {
  const read = readOverlay(name)
  return read.ok ? transposeOverlay(read.value, by).name : name
}
const chordIn = (symbol: string, by: Interval): string => {
  const read = readChord(symbol)
  return read.ok ? transposeChord(read.value, by).symbol : symbol
}

/** What an item is of, in a few words, in the player's written pitch. */
export const ofWords = (of: ItemOf, { instrument }: OpenChart): string => {
  const by = instrument.written
  const kind = KINDS[of.kind] ?? of.kind
  const what =
    of.kind === 'quiz'
      ? (of.topics ?? []).join(', ')
      : of.kind === 'combine'
        ? (of.sounds ?? []).map((s) => overlayIn(s, by)).join(' / ')
        : overlayIn(of.overlay ?? of.outside ?? '', by)
  const over = of.chord ? ` over ${chordIn(of.chord, by)}${of.next ? ` to ${chordIn(of.next, by)}` : ''}` : ''
  return toGlyphs(`${kind}${what === '' ? '' : `: ${what}`}${over}`)
}
