import { getContext, start } from 'tone'
import type { Mix, Score } from './score.ts'
import { advance, emptySequence, roundAtTime, type Sequence } from './strikes.ts'
import { stopScore } from './transport.ts'
import { band, bandIfMade } from './voices.ts'

/** Seconds until the first note; so long before its first beat a round is asked for; so long before it a note is struck. */
const SOON = 0.15
const LAY_AHEAD = 0.4
const STRIKE_AHEAD = 0.2
const EVERY = 0.05

let sequence: Sequence | null = null
let ticking: number | null = null

/** Plays rounds without a gap, each as `next` gives it, after a bar of clicks where that is asked for; null ends them. */
export const playRounds = async (next: (number: number) => Score | null, mix: Mix, countIn: boolean): Promise<void> => {
  stopRounds()
  stopScore()
  await start()
  const voices = band()
  voices.mix(mix)
  const context = getContext()
  const first = next(0)
  if (first === null) return
  const beat = 60 / first.tempo
  const now = context.currentTime + SOON
  const counted = countIn ? first.beatsInBar : 0
  for (let i = 0; i < counted; i++) voices.count(now + i * beat, i === 0)
  sequence = emptySequence(now + counted * beat)
  const tick = (): void => {
    if (!sequence) return
    const at = context.currentTime
    const done = advance(sequence, { now: at, strike: at + STRIKE_AHEAD, lay: at + LAY_AHEAD }, next)
    sequence = done.sequence
    for (const s of done.strikes) voices.strike(s.part, s.pitch, s.at, s.seconds, s.loudness)
  }
  tick()
  ticking = context.setInterval(tick, EVERY)
}

export const stopRounds = (): void => {
  if (ticking !== null) getContext().clearInterval(ticking)
  ticking = null
  sequence = null
  bandIfMade()?.silence()
}

/** Where the music is: the round that sounds and the tick of its chart; null while it is counted in, and at rest. */
export const roundNow = (): { readonly number: number; readonly tick: number } | null =>
  sequence && roundAtTime(sequence, getContext().currentTime)
