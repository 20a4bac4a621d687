import { MOST, printCount } from '../bounds.ts'
import { fail, ok, type Result, type TextError } from '../result.ts'
import type { WrittenBar } from './chart.ts'

/** What else a file may say of its form at a bar; a chart's own text has repeats and endings only. */
export interface Jumps {
  /** A jump lands before this bar. */
  readonly segno?: boolean | undefined
  readonly coda?: boolean | undefined
  /** After this bar, once it was jumped: on to the coda, or the end. */
  readonly toCoda?: boolean | undefined
  readonly fine?: boolean | undefined
  /** After this bar back to the start or the sign, once; repeats are then played as the last time. */
  readonly back?: 'start' | 'segno' | undefined
  /** How often what closes with this bar is played. */
  readonly times?: number | undefined
}

/** What the form is read from: signs of repeats, how many chords a bar has, and where it stands in its text. */
export type FormBar = Pick<WrittenBar, 'opens' | 'closes' | 'endings' | 'text'> & {
  readonly spots: { readonly length: number }
  readonly jumps?: Jumps | undefined
}

/** For each bar, should a repeat start there, how often it is played: as often as its endings count, else twice. */
const passesFrom = (bars: readonly FormBar[]): readonly number[] => {
  const passes: number[] = []
  for (let i = bars.length - 1; i >= 0; i--) {
    const [bar, next] = [bars[i], bars[i + 1]]
    const isApart = next?.opens || (bar?.closes && next?.endings.length === 0)
    const after = isApart ? 0 : (passes[i + 1] ?? 0)
    passes[i] = Math.max(2, after, bar?.jumps?.times ?? 0, ...(bar?.endings ?? []))
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
 * The written bars in the order they are played, as indices: repeats twice, or as often as their endings count; jumps
 * as they are said. Source: theory page, section 7.
 */
export const playedOrder = (bars: readonly FormBar[]): Result<readonly number[], TextError> => {
  const bad = badForm(bars)
  if (bad) return fail(bad)
  const [passes, after] = [passesFrom(bars), afterEndings(bars)]
  const order: number[] = []
  let chords = 0
  let [start, pass, last, at] = [0, 1, false, 0]
  let back = false
  /** Not jumped yet; jumped, so that repeats are played as the last time; on in the coda. */
  let way: 'first' | 'again' | 'coda' = 'first'
  const coda = bars.findIndex((b) => b.jumps?.coda)
  const segno = bars.findIndex((b) => b.jumps?.segno)
  const enter = (bar: number): void => {
    ;[at, start, last] = [bar, bar, false]
    pass = way === 'again' ? (passes[bar] ?? 1) : 1
  }
  while (at < bars.length) {
    const bar = bars[at] as FormBar
    if (bar.opens && !back) enter(at)
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
    const { fine, toCoda, back: to } = bar.jumps ?? {}
    if (way === 'again' && fine) break
    if (way === 'again' && toCoda && coda >= 0) {
      way = 'coda'
      enter(coda)
    } else if (way === 'first' && to) {
      way = 'again'
      enter(to === 'start' ? 0 : Math.max(0, segno))
    } else if (bar.closes) enter(at + 1)
    else at++
  }
  return ok(order)
}
