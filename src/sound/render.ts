import toWav from 'audiobuffer-to-wav'
import { getContext, OfflineContext, setContext } from 'tone'
import { schedule } from './schedule.ts'
import { type Mix, type Score, secondsOf } from './score.ts'
import { makeVoices } from './voices.ts'

const TAIL = 1.5
const RATE = 44_100
const STEP_MS = 100

/** How far a rendering is, 0..1, and whether it is still wanted. */
export interface Rendering {
  readonly onProgress: (part: number) => void
  readonly wanted: () => boolean
}

/** Plays a score some times round into memory, as it would sound; null where it was no longer wanted. */
export const renderScore = async (
  score: Score,
  mix: Mix,
  rounds: number,
  { onProgress, wanted }: Rendering,
): Promise<AudioBuffer | null> => {
  const played = rounds * secondsOf(score)
  const seconds = played + TAIL
  const live = getContext()
  const context = new OfflineContext(2, seconds, RATE)
  setContext(context)
  const voices = makeVoices()
  voices.mix(mix)
  schedule(context.transport, score, voices)
  context.transport.start(0, `${Math.round(score.span.from)}i`)
  // Its last notes die away, and it does not begin again.
  context.transport.stop(played)
  setContext(live)
  const telling = setInterval(() => onProgress(context.currentTime / seconds), STEP_MS)
  try {
    const buffer = await context.render()
    return wanted() ? (buffer.get() ?? null) : null
  } finally {
    clearInterval(telling)
  }
}

/** A score as a WAV file, 16 bits, stereo. */
export const wavOf = async (score: Score, mix: Mix, rounds: number, rendering: Rendering): Promise<Blob | null> => {
  const buffer = await renderScore(score, mix, rounds, rendering)
  return buffer && new Blob([toWav(buffer)], { type: 'audio/wav' })
}
