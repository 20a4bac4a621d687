import { type Feel, feelOf } from '../../../core/index.ts'
import { $address, go } from '../address/address.ts'
import type { Bars } from '../address/parts/band.ts'
import { moveStep } from '../route/steering.ts'
import { moveChord } from '../tune/moving.ts'
import { $openChart } from '../tune/open-chart.ts'
import { $playing, startPlaying } from './playing.ts'

const barNumbers = (): readonly number[] => {
  return $openChart.get()?.chart?.bars.map((b) => b.number) ?? []
}

/** `[` and `]`: the loop begins or ends with the bar in view. */
export const markLoop = (end: 'from' | 'to'): void => {
  const address = $address.get()
  const numbers = barNumbers()
  if (!address || numbers.length === 0) return
  const loop = address.loop ?? { from: numbers[0] ?? 1, to: numbers.at(-1) ?? 1 }
  const moved = { ...loop, [end]: address.bar }
  setLoop(moved.from > moved.to ? { from: address.bar, to: address.bar } : moved)
}

export const setLoop = (loop: Bars | null): void => {
  const numbers = barNumbers()
  const all = loop && loop.from <= (numbers[0] ?? 1) && loop.to >= (numbers.at(-1) ?? 1)
  go({ loop: all ? null : loop })
}

const FEW_BARS = 4

/** Where the form falls apart: its sections, or every four bars. */
const pieces = (): readonly Bars[] => {
  const bars = $openChart.get()?.chart?.bars ?? []
  const named = bars.filter((b, i) => i === 0 || b.section !== null)
  const starts = named.length > 1 ? named : bars.filter((_, i) => i % FEW_BARS === 0)
  return starts.map((b, i) => ({ from: b.number, to: (starts[i + 1]?.number ?? (bars.at(-1)?.number ?? 1) + 1) - 1 }))
}

/** The next or previous loop of the form: as many bars further on, or from all of it to its first or last part. */
export const moveLoop = (by: 1 | -1): void => {
  const address = $address.get()
  const all = pieces()
  if (!address || all.length === 0) return
  const { loop } = address
  if (!loop) {
    const at = all.findIndex((p) => address.bar >= p.from && address.bar <= p.to)
    return setLoop(all[(at + all.length) % all.length] ?? null)
  }
  const at = all.findIndex((p) => p.from === loop.from && p.to === loop.to)
  if (at >= 0) return setLoop(all[(at + by + all.length) % all.length] ?? null)
  const numbers = barNumbers()
  const [first, last] = [numbers[0] ?? 1, numbers.at(-1) ?? 1]
  const length = loop.to - loop.from + 1
  const from = by === 1 ? loop.to + 1 : loop.from - length
  if (from > last) setLoop({ from: first, to: Math.min(last, first + length - 1) })
  else if (from < first) setLoop({ from: Math.max(first, last - length + 1), to: last })
  else setLoop({ from, to: Math.min(last, from + length - 1) })
}

export const setTempoTo = (tempo: number): void => {
  const chart = $openChart.get()?.chart
  go({ tempo: tempo === chart?.tempo ? null : tempo })
}
export const setFeel = (feel: Feel): void => {
  const chart = $openChart.get()?.chart
  go({ feel: chart && feel === feelOf(chart) ? null : feel })
}

/** Two presses this far apart are one gesture; closer ones are a switch that bounces, or keys played by a machine. */
const TWICE_MS = { least: 100, most: 400 } as const
let pressed = { by: 0, at: -Infinity, address: $address.get() }

/**
 * The pedal: at rest the next or previous chord, pressed twice it starts with a count-in from where it was; while
 * playing the next or previous loop. `at` in milliseconds.
 */
export const pressPedal = (by: 1 | -1, at: number): void => {
  if ($playing.get()) return moveLoop(by)
  const { address } = pressed
  const since = at - pressed.at
  if (pressed.by === by && since > TWICE_MS.least && since < TWICE_MS.most && address) {
    pressed = { by: 0, at: -Infinity, address: null }
    go({
      bar: address.bar,
      beat: address.beat,
      over: address.over,
      sounds: address.sounds,
      home: address.home,
      note: address.note,
    })
    return void startPlaying(true)
  }
  pressed = { by, at, address: $address.get() }
  if (!moveStep(by)) moveChord(by)
}
