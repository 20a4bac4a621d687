import type { Chart } from '../chart/chart.ts'
import type { WishedFade } from './options.ts'
import type { Slot } from './slots.ts'

/** How far out at a slot: `phrase` 0..1 within its phrase, `whole` 0..1 within all, `bar` counted within its phrase. */
interface Standing {
  readonly slot: Slot
  readonly phrase: number
  readonly whole: number
  readonly bar: number
  readonly barsLeft: number
}

const [IN, OUT] = [12, 60] as const

const byJob = ({ slot }: Standing): number => {
  const { resolves, job } = slot.spot
  if (resolves) return 45
  if (job?.kind === 'static dominant' || job?.kind === 'chromatic ii' || job?.kind === 'chromatic V') return 30
  return job?.kind.startsWith('ii') ? 22 : 14
}

/** Ready shapes for how far out one wants to be. */
export const ARC_PRESETS = {
  'with the cadences': { reason: 'What leads away is out, what it reaches is in.', fade: byJob },
  'in, out, home': {
    reason: 'Each phrase begins in, is furthest out past its middle, and comes home.',
    fade: ({ phrase }: Standing) =>
      phrase > 0.85 ? IN : Math.round(IN + (OUT - IN) * Math.sin((Math.PI * phrase) / 0.95)),
  },
  'four out, four in': {
    reason: 'Four bars away, four bars back: the ear has time for both.',
    fade: ({ bar }: Standing) => (bar % 8 < 4 ? OUT : IN),
  },
  'slow burn': {
    reason: 'Further out with every bar, to the end.',
    fade: ({ whole }: Standing) => Math.round(8 + 62 * whole),
  },
  'last turn only': {
    reason: 'In until the last two bars, which turn it round.',
    fade: ({ barsLeft }: Standing) => (barsLeft < 2 ? 55 : IN),
  },
} as const satisfies Readonly<Record<string, { reason: string; fade: (s: Standing) => number }>>

export type ArcPreset = keyof typeof ARC_PRESETS
export const ARC_NAMES = Object.keys(ARC_PRESETS) as readonly ArcPreset[]

const PHRASE = 8

/** The bars on which phrases begin: sections, and every eight bars within them. */
const phraseStarts = (chart: Chart, first: number): readonly number[] => {
  const starts: number[] = []
  for (const bar of chart.bars) {
    const last = starts.at(-1)
    if (last === undefined || bar.section !== null || bar.number === first || bar.number - last >= PHRASE)
      starts.push(bar.number)
  }
  return starts
}

/** A ready shape over the slots of a chart: a wish for each. */
export const arcOf = (preset: ArcPreset, chart: Chart, slots: readonly Slot[]): readonly WishedFade[] => {
  const [first, last] = [slots[0]?.bar ?? 1, slots.at(-1)?.bar ?? 1]
  const starts = phraseStarts(chart, first)
  return slots.map((slot) => {
    const from = Math.max(first, starts.filter((b) => b <= slot.bar).at(-1) ?? first)
    const to = Math.min(last + 1, starts.find((b) => b > slot.bar) ?? last + 1)
    const at = slot.bar + (slot.beat - 1) / slot.spot.spot.metre.beats
    const standing: Standing = {
      slot,
      phrase: (at - from) / Math.max(1, to - from),
      whole: (at - first) / Math.max(1, last - first),
      bar: slot.bar - from,
      barsLeft: last - slot.bar,
    }
    return { bar: slot.bar, beat: slot.beat, fade: ARC_PRESETS[preset].fade(standing) }
  })
}
