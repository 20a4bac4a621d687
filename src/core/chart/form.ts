import { MOST, printCount } from '../bounds.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import type { WrittenBar } from './chart.ts'

/** What the form is read from: signs of repeats, how many chords a bar has, and where it stands in its text. */
export type FormBar = Pick<WrittenBar, 'opens' | 'closes' | 'endings' | 'text'> & {
  readonly spots: { readonly length: number }
}

/** For each bar, should a repeat start there, how often it is played: as often as its endings count, else twice. */
const passesFrom = (bars: readonly FormBar[]): readonly number[] => {
  const passes: number[] = []
  for (let i = bars.length - 1; i >= 0; i--) {
    const after = bars[i + 1]?.opens ? 0 : (passes[i + 1] ?? 0)
    passes[i] = Math.max(2, after, ...(bars[i]?.endings ?? []))
  }
  return passes
}

/** For each bar, the first one after an ending that starts there: the next ending's first, or the one after its repeat sign. */
const afterEndings = (bars: readonly FormBar[]): readonly number[] => {
  const after: number[] = []
  for (let i = bars.length - 1; i >= 0; i--) {
    const ends = bars[i]?.closes || (bars[i + 1]?.endings.length ?? 0) > 0
    after[i] = ends ? i + 1 : (after[i + 1] ?? bars.length)
  }
  return after
}

/** What cannot be played: a repeat that never closes, an ending whose first one is missing. */
const badForm = (bars: readonly FormBar[]): TextError | null => {
  let opened: FormBar | null = null
  let endings = 0
  for (const bar of bars) {
    if (bar.opens) {
      if (opened) return { code: 'bad_bar', at: opened.text.at, found: '', expected: [':| to close this repeat'] }
      opened = bar
      endings = 0
    }
    const [first] = bar.endings
    if (first !== undefined) {
      if (first > endings + 1)
        return { code: 'bad_bar', at: bar.text.at, found: '', expected: [`ending ${endings + 1}. before it`] }
      endings = Math.max(endings, ...bar.endings)
    }
    if (bar.closes) opened = null
  }
  return opened && { code: 'bad_bar', at: opened.text.at, found: '', expected: [':| to close this repeat'] }
}

/**
 * The written bars in the order they are played, as indices: repeats twice, or as often as their endings count.
 * Source: theory page, section 7.
 */
export const playedOrder = (bars: readonly FormBar[]): Result<readonly number[], TextError> => {
  const bad = badForm(bars)
  if (bad) return fail(bad)
  const [passes, after] = [passesFrom(bars), afterEndings(bars)]
  const order: number[] = []
  let chords = 0
  let [start, pass, last, at] = [0, 1, false, 0]
  let back = false
  while (at < bars.length) {
    const bar = bars[at] as FormBar
    if (bar.opens && !back) [start, pass, last] = [at, 1, false]
    back = false
    if (bar.endings.length > 0 && !bar.endings.includes(pass)) {
      at = after[at] as number
      continue
    }
    if (bar.endings.includes(passes[start] as number)) last = true
    order.push(at)
    chords += bar.spots.length
    const tooMuch =
      order.length > MOST.bars
        ? `at most ${printCount(MOST.bars)} bars as played`
        : chords > MOST.chords
          ? `at most ${printCount(MOST.chords)} chords as played`
          : null
    if (tooMuch) return fail({ code: 'bad_bar', at: bar.text.at, found: '', expected: [tooMuch] })
    if (bar.closes && !last && pass < (passes[start] as number)) {
      pass++
      at = start
      back = true
      continue
    }
    if (bar.closes) [start, pass, last] = [at + 1, 1, false]
    at++
  }
  return ok(order)
}
