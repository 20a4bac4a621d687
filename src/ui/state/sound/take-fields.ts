import { atom } from 'nanostores'
import { beatOf, type KeptPlan, laidAt, plainKey, planOver, stepAt, type Tune } from '../../../core/index.ts'
import { $address } from '../address/address.ts'
import { $kept } from '../kept/kept.ts'
import { rowsIn } from '../kept/lists.ts'
import { $rows } from '../kept/rows.ts'
import { deviceOf, playingInNow } from '../takes/manner.ts'
import { textHere } from '../tune/concert.ts'
import { $roundToTake, type RoundToTake } from './round-take.ts'

/** The practice item the next take is a round of. */
export const $roundOf = atom<string | null>(null)

/** The round that was sent here from the player, as long as its chart is the one in sight. */
export const roundOver = (text: string | null): RoundToTake | null => {
  const round = $roundToTake.get()
  return round && round.text === text ? round : null
}

const planOf = (tune: Tune): KeptPlan | null => {
  const steps = $kept.get()?.route?.steps ?? []
  const laid = tune.timeline.soundings.map(({ spot: { spot } }) => {
    const at = { bar: spot.bar, beat: beatOf(spot) }
    const wished = stepAt(steps, at)?.wished
    return { ...at, overlay: laidAt(steps, at), ...(wished == null ? {} : { wished }) }
  })
  return planOver(laid)
}

const nameOf = (title: string, source: string): string => {
  const now = new Date()
  const time = now.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return `${title}, ${source === 'simulated' ? 'simulated' : source}, ${time}`
}

/** Items that are practised over a chart. */
export const itemsOver = (chartId: string | null) =>
  chartId === null ? [] : rowsIn<'items'>($rows.items.get()).filter((i) => i.of.chartId === chartId)

const keyOf = (tune: Tune): string | null => {
  const tonic = tune.chart.key?.tonic ?? tune.analysis.key?.tonic
  return tonic ? plainKey(tonic.name) : null
}

/** What a take holds before a note was played; null where nothing is open. */
export const takeFields = (tune: Tune, tempo: number) => {
  const [address, kept] = [$address.get(), $kept.get()]
  if (!address || !kept) return null
  const { text, overrides, isChart } = textHere(address, kept)
  if (text === null) return null
  const how = playingInNow()
  const { source } = how
  const round = roundOver(text)
  const itemId = round?.itemId ?? itemsOver(kept.chart?.id ?? null).find((i) => i.id === $roundOf.get())?.id ?? null
  const chartId = round ? round.chartId : isChart ? (kept.chart?.id ?? null) : null
  const bars = address.loop ? ([address.loop.from, address.loop.to] as const) : null
  return {
    ...{ name: nameOf(tune.chart.title || 'Sketch', source), chartId },
    ...{
      itemId,
      key: round?.key ?? (itemId === null ? null : keyOf(tune)),
      text,
      overrides,
      bars,
      plan: round ? round.plan : isChart ? planOf(tune) : null,
      tempo,
    },
    ...{ offset: how.delays[deviceOf(how)] ?? 0, source, notes: [], soundFrom: 0, sound: null },
    ...{ disputed: null, open: true, tags: [] },
  }
}
