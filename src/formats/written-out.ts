import { barTicks, playedOrder, ticks } from '../core/index.ts'
import type { FoundBar, LeftOut } from './assemble.ts'

const plain = (bar: FoundBar): FoundBar => ({ ...bar, opens: false, closes: false, endings: [], jumps: undefined })

/** Whether two bars are one that a sign has split. */
const areHalves = (a: FoundBar, b: FoundBar): boolean =>
  a.length > 0 && b.length > 0 && a.length + b.length === barTicks(a.metre)

const joined = (a: FoundBar, b: FoundBar): FoundBar => ({
  ...a,
  section: a.section ?? b.section,
  closes: b.closes,
  jumps: b.jumps ?? a.jumps,
  length: ticks(a.length + b.length),
  chords: [...a.chords, ...b.chords.map((c) => ({ ...c, at: ticks(a.length + c.at) }))],
})

/** Bars that a sign has split, made one again where nothing of the form stands between them, or `anyway`. */
const healed = (bars: readonly FoundBar[], anyway: boolean): readonly FoundBar[] =>
  bars.reduce<readonly FoundBar[]>((all, bar) => {
    const last = all.at(-1)
    const isApart = last !== undefined && (last.closes || bar.opens || bar.endings.length > 0)
    return last && areHalves(last, bar) && (anyway || !isApart)
      ? [...all.slice(0, -1), joined(last, bar)]
      : [...all, bar]
  }, [])

/**
 * Bars whose form a chart's text can say: as they are where it can, else in the order they are played, without signs. That
 * is so with jumps, with repeats of more than two passes and no endings, and where a repeat splits a bar.
 */
export const writtenOut = (
  bars: readonly FoundBar[],
): { readonly bars: readonly FoundBar[]; readonly leftOut: readonly LeftOut[] } => {
  const found = healed(bars, false)
  const order = playedOrder(found.map((b) => ({ ...b, spots: b.chords, text: { at: 0, end: 0 } })))
  if (!order.ok) return { bars: found, leftOut: [] }
  const played = order.value.map((i) => plain(found[i] as FoundBar))
  const mended = healed(played, true)
  const why = found.some((b) => b.jumps?.back !== undefined)
    ? 'the jump'
    : found.some((b) => (b.jumps?.times ?? 0) > 2)
      ? 'a repeat of more than two passes'
      : mended.length < played.length
        ? 'the repeats'
        : null
  if (why === null) return { bars: found, leftOut: [] }
  return {
    bars: mended,
    leftOut: [{ what: why, why: 'a chart’s text has no sign for it: every bar is written out as it is played' }],
  }
}
