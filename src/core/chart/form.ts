import { fail, ok, type Result, type TextError } from '../result.ts'
import type { WrittenBar } from './chart.ts'

const MOST_PLAYED = 2000

/** How often the repeat that starts at `from` is played: as often as its endings count, else twice. */
const passesFrom = (bars: readonly WrittenBar[], from: number): number => {
  const next = bars.findIndex((b, i) => i > from && b.opens)
  const inside = bars.slice(from, next < 0 ? undefined : next)
  return Math.max(2, ...inside.flatMap((b) => b.endings))
}

/** The first bar after the ending that starts at `at`: the next ending's first, or the one after its repeat sign. */
const afterEnding = (bars: readonly WrittenBar[], at: number): number => {
  for (let i = at; i < bars.length; i++) {
    if (i > at && (bars[i]?.endings.length ?? 0) > 0) return i
    if (bars[i]?.closes) return i + 1
  }
  return bars.length
}

/** What cannot be played: a repeat that never closes, an ending whose first one is missing. */
const badForm = (bars: readonly WrittenBar[]): TextError | null => {
  let opened: WrittenBar | null = null
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
export const playedOrder = (bars: readonly WrittenBar[]): Result<readonly number[], TextError> => {
  const bad = badForm(bars)
  if (bad) return fail(bad)
  const order: number[] = []
  let [start, pass, last, at] = [0, 1, false, 0]
  let back = false
  while (at < bars.length) {
    const bar = bars[at] as WrittenBar
    if (bar.opens && !back) [start, pass, last] = [at, 1, false]
    back = false
    if (bar.endings.length > 0 && !bar.endings.includes(pass)) {
      at = afterEnding(bars, at)
      continue
    }
    if (bar.endings.includes(passesFrom(bars, start))) last = true
    order.push(at)
    if (order.length > MOST_PLAYED)
      return fail({ code: 'bad_bar', at: bar.text.at, found: '', expected: [`at most ${MOST_PLAYED} bars played`] })
    if (bar.closes && !last && pass < passesFrom(bars, start)) {
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
