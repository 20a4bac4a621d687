import { getContext, getTransport, type Part, start } from 'tone'
import type { Span } from '../core/index.ts'
import { schedule, setTempo } from './schedule.ts'
import { type Mix, type Score, secondsPerTick } from './score.ts'
import { band, bandIfMade } from './voices.ts'

/** Seconds until the first note: more than Tone looks ahead, so that nothing of an earlier playing lies later. */
const SOON = 0.15

let part: Part | undefined
let span: Span | undefined
/** When the band begins by the context's clock; before that the count-in sounds. */
let begins = 0

const lay = (score: Score): void => {
  const transport = getTransport()
  part?.dispose()
  part = schedule(transport, score, band())
  span = score.span
}

/** Plays a score from a tick within its span, round and round, after a bar of clicks where that is asked for. `atStart` is told each
 * time it begins, in seconds of the context's clock. */
export const playScore = async (
  score: Score,
  mix: Mix,
  from: number,
  countIn: boolean,
  atStart: ((at: number) => void) | null = null,
): Promise<void> => {
  await start()
  const transport = getTransport()
  transport.stop()
  transport.cancel()
  lay(score)
  if (atStart) transport.schedule(atStart, `${Math.round(score.span.from)}i`)
  band().mix(mix)
  const beat = score.beat * secondsPerTick(score)
  const now = getContext().currentTime + SOON
  const counted = countIn ? score.beatsInBar : 0
  for (let i = 0; i < counted; i++) band().count(now + i * beat, i === 0)
  begins = now + counted * beat
  transport.start(begins, `${Math.round(from)}i`)
}

/** Puts another score in place of the one that plays. Where the music is outside it, it goes on as far from the start as it was. */
export const changeScore = (score: Score): void => {
  const [at, before] = [positionNow(), span]
  lay(score)
  const { from, to } = score.span
  if (at !== null && before && (at < from || at >= to))
    getTransport().position = `${Math.round(from + ((at - before.from) % (to - from)))}i`
}

export const changeTempo = (score: Score): void => setTempo(getTransport(), score)
export const changeMix = (mix: Mix): void => bandIfMade()?.mix(mix)

export const stopScore = (): void => {
  getTransport().stop()
  bandIfMade()?.silence()
}

/** Ms of the context's clock at which the first beat sounds. */
export const firstBeatMs = (): number => begins * 1000

/** The tick that sounds now; null while nothing plays or the count-in goes on. */
export const positionNow = (): number | null => {
  const transport = getTransport()
  const now = getContext().currentTime
  if (transport.state !== 'started' || now < begins) return null
  return Math.max(0, transport.getTicksAtTime(now))
}
