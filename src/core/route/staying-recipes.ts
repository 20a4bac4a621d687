import { materialNamed } from '../material/material.ts'
import { placeOn, slipOverlay } from '../material/overlay.ts'
import { homeOverlay } from '../reading/home.ts'
import { layChart } from '../reading/laid-chart.ts'
import { DEFAULT_WEIGHTS } from '../reading/weights.ts'
import {
  arpeggioOf,
  cutAt,
  type Ground,
  halfway,
  holdsIn,
  lay,
  place,
  placed,
  type RecipePart,
  type RecipePlace,
} from './recipe.ts'
import type { Slot } from './slots.ts'

export const thirdsApart = ({ slots }: Ground): readonly RecipePlace[] =>
  holdsIn(slots).flatMap((hold) => {
    const [first, second] = hold
    const [at, then] = [first && halfway(first), second && halfway(second)]
    if (!first || !second || !at || !then || first.chord.family !== 'major') return []
    const triad = materialNamed('')
    const [home, above, below] = [placed(triad, first, 0), placed(triad, first, 4), placed(triad, first, 8)]
    const parts = [lay(first, home), lay(first, above, at), lay(second, below), lay(second, home, then)]
    const because = `${first.chord.symbol} stays, so ${above.name} and ${below.name} can stand on either side of ${home.name}.`
    return [place([first, second], because, parts, [cutAt(first, at), cutAt(second, then)])]
  })

const leadsOn = (slot: Slot): boolean => slot.spot.resolves

export const sideSlips =
  (by: 1 | -1) =>
  ({ slots }: Ground): readonly RecipePlace[] =>
    holdsIn(slots).flatMap((hold) => {
      const last = hold.at(-1)
      const at = last && halfway(last)
      if (!last || !at || hold.length < 2 || hold.some(leadsOn)) return []
      const home = homeOverlay(last.place.home.first)
      const away = slipOverlay(home, by, home.notes)
      const because = `${last.chord.symbol} stays, so ${away.name} may stand there for a moment, and ${home.name} takes it back.`
      if (hold.length < 4) {
        const parts = [...hold.slice(0, -1).map((s) => lay(s, home)), lay(last, away), lay(last, home, at)]
        return [place(hold, because, parts, [cutAt(last, at)])]
      }
      return [
        place(
          hold,
          because,
          hold.map((s) => lay(s, s === hold.at(-2) ? away : home)),
        ),
      ]
    })

const [FOUR, EIGHT] = [4, 8] as const
/** With more chords than this in eight bars, the harmony does not stay. */
const FEW_CHORDS = 3

/** Eight bars on end in one key in which nothing resolves. */
export const fourAndFour = ({ slots }: Ground): readonly RecipePlace[] => {
  const runs: Slot[][] = []
  for (const slot of slots) {
    const run = runs.at(-1)
    const last = run?.at(-1)
    const goesOn = last && !leadsOn(slot) && !leadsOn(last) && sameKey(last, slot)
    if (run && goesOn) run.push(slot)
    else runs.push([slot])
  }
  return runs.flatMap((run) => {
    const from = run[0]?.bar ?? 0
    const eight = run.filter((s) => s.bar < from + EIGHT)
    const whole = slots.filter((s) => s.bar >= from && s.bar < from + EIGHT).length === eight.length
    const stays = new Set(eight.map((s) => s.chord.symbol)).size <= FEW_CHORDS
    if ((run.at(-1)?.bar ?? 0) < from + EIGHT - 1 || !whole || !stays) return []
    const because = `Nothing resolves in bars ${from}-${from + EIGHT - 1}, so four of them may be left.`
    const parts = eight.map((s): RecipePart => {
      const window = s.bar < from + FOUR ? { least: 50, most: 100 } : { least: 0, most: 30 }
      return { bar: s.bar, beat: s.beat, overlay: null, window }
    })
    return [place(eight, because, parts)]
  })
}

const sameKey = (a: Slot, b: Slot): boolean =>
  a.spot.key?.tonic.pc === b.spot.key?.tonic.pc && a.spot.key?.mode === b.spot.key?.mode

export const changesOfAnother = ({ chart, analysis, slots, school, other }: Ground): readonly RecipePlace[] => {
  if (!other) return []
  const laid = layChart(chart, analysis.spots, other.chart, other.shift, school, DEFAULT_WEIGHTS)
  const chords = laid.bars.flatMap((b) => b.chords)
  const parts = slots.flatMap((slot) => {
    const over = chords.find((c) => c.spot.index === slot.spot.index)
    if (!over) return []
    const own = arpeggioOf(over.laid)
    return [lay(slot, own ? placeOn(over.laid.root, own) : over.reading.overlay)]
  })
  if (parts.length === 0) return []
  const name = other.chart.title
  return [place(slots, `${name} has a chord for every bar of this, so its changes can be laid over all of it.`, parts)]
}
