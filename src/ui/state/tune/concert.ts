import { barsAt, readTune, type Span, type Tune } from '../../../core/index.ts'
import type { Address } from '../address/address.ts'
import type { Kept } from '../kept/kept.ts'
import { settingsFrom } from '../kept/settings.ts'
import { latest } from './latest.ts'

/** What is in sight as text: the sketch, the own text of a line, else the open chart, with what was said of its chords. */
export const textHere = ({ sketch }: Address, { ownText, chart }: Kept) =>
  sketch !== null
    ? { text: sketch, overrides: null, isChart: false }
    : ownText?.text
      ? { text: ownText.text, overrides: null, isChart: false }
      : { text: chart?.text ?? null, overrides: chart?.overrides ?? null, isChart: true }

const tuneFrom = latest(readTune)
const schoolOf = latest((settings: Kept['settings']) => ({ school: settingsFrom(settings).school }))

/** What is in sight as the band reads it, in concert pitch; null where there is nothing that reads. */
export const concertTune = (address: Address, kept: Kept): Tune | null => {
  const { text, overrides } = textHere(address, kept)
  const tune = text === null ? null : tuneFrom(text, overrides, schoolOf(kept.settings))
  return tune?.ok ? tune.value : null
}

/** The tick where a bar begins in the chorus a span begins in; the span's start where the bar lies outside it. */
export const startAt = ({ chart, timeline }: Tune, span: Span, bar: number): number => {
  const found = barsAt(chart).find((b) => b.number === bar)
  const chorus = timeline.length > 0 ? Math.floor(span.from / timeline.length) * timeline.length : 0
  const at = chorus + (found?.from ?? 0)
  return at >= span.from && at < span.to ? at : span.from
}
