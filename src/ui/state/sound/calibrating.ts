import { atom } from 'nanostores'
import { delayOf } from '../../../input/calibrate.ts'
import { say } from '../page/notices.ts'
import { deviceOf, playingInNow, setPlayingIn } from '../takes/manner.ts'
import { stopPlaying } from './playing.ts'
import { openSource } from './take-source.ts'

/** Clicks that are tapped along; how many came so far. */
export const $calibrating = atom<{ readonly taps: number } | null>(null)

const CLICKS = 8
const APART_MS = 600
const LEAD_MS = 1200

let stop: (() => void) | null = null
export const stopCalibrating = (): void => {
  stop?.()
  stop = null
  $calibrating.set(null)
}

/** Sounds eight clicks, hears what is tapped along, and keeps by how much it comes late. */
export const calibrate = async (): Promise<void> => {
  stopPlaying()
  stopCalibrating()
  const taps: number[] = []
  $calibrating.set({ taps: 0 })
  const opened = await openSource(null, {
    onNote: ({ kind, at }) => {
      if (kind !== 'on' || !$calibrating.get()) return
      taps.push(at)
      $calibrating.set({ taps: taps.length })
    },
    onLost: (why) => {
      stopCalibrating()
      say(why)
    },
  })
  if (!opened.ok) {
    $calibrating.set(null)
    return say(opened.why)
  }
  const [{ band }, { clockAhead, wakeContext }] = await Promise.all([
    import('../../../sound/voices.ts'),
    import('../../../sound/clock.ts'),
  ])
  await wakeContext()
  const voices = band()
  const first = performance.now() + LEAD_MS
  const clicks = Array.from({ length: CLICKS }, (_, i) => first + i * APART_MS)
  const timers = [
    setInterval(() => clockAhead(), 100),
    ...clicks.map((at, i) =>
      setTimeout(() => voices.count((at + clockAhead()) / 1000, i === 0), at - performance.now() - SOON_MS),
    ),
    setTimeout(() => finish(clicks, taps), (clicks.at(-1) ?? 0) + APART_MS - performance.now()),
  ]
  stop = () => {
    for (const timer of timers) clearTimeout(timer)
    opened.instrument.stop()
  }
}
const SOON_MS = 150

const finish = (clicks: readonly number[], taps: readonly number[]): void => {
  stopCalibrating()
  const found = delayOf(clicks, taps)
  if (!found) return say('Too few notes came along with the clicks: nothing is changed.')
  const how = playingInNow()
  const delay = Math.round(found.delay * 10) / 10
  setPlayingIn({ delays: { ...how.delays, [deviceOf(how)]: delay } })
  say(`${Math.round(delay)} ms late, within ${Math.round(found.stray)}: that is taken off from now on.`, 'undo')
}
