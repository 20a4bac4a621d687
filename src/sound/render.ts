import toWav from 'audiobuffer-to-wav'
import { getContext, OfflineContext, setContext } from 'tone'
import { schedule } from './schedule.ts'
import { type Mix, type Score, secondsOf } from './score.ts'
import { advance, emptySequence } from './strikes.ts'
import { makeVoices, type Voices } from './voices.ts'

const TAIL = 1.5
const RATE = 44_100
const STEP_MS = 100

/** How far a rendering is, 0..1, and whether it is still wanted. */
export interface Rendering {
  readonly onProgress: (part: number) => void
  readonly wanted: () => boolean
}

/** Renders so many seconds of what `lay` puts into a context of its own; null where it was no longer wanted. */
const renderSeconds = async (
  seconds: number,
  mix: Mix,
  lay: (voices: Voices, context: OfflineContext) => void,
  { onProgress, wanted }: Rendering,
): Promise<AudioBuffer | null> => {
  const live = getContext()
  const context = new OfflineContext(2, seconds, RATE)
  setContext(context)
  const voices = makeVoices()
  voices.mix(mix)
  lay(voices, context)
  setContext(live)
  const telling = setInterval(() => onProgress(context.currentTime / seconds), STEP_MS)
  try {
    const buffer = await context.render()
    return wanted() ? (buffer.get() ?? null) : null
  } finally {
    clearInterval(telling)
  }
}

/** Plays a score some times round into memory, as it would sound; null where it was no longer wanted. */
export const renderScore = (
  score: Score,
  mix: Mix,
  rounds: number,
  rendering: Rendering,
): Promise<AudioBuffer | null> => {
  const played = rounds * secondsOf(score)
  return renderSeconds(
    played + TAIL,
    mix,
    (voices, context) => {
      schedule(context.transport, score, voices)
      context.transport.start(0, `${Math.round(score.span.from)}i`)
      // Its last notes die away, and it does not begin again.
      context.transport.stop(played)
    },
    rendering,
  )
}

const inWav = (buffer: AudioBuffer | null): Blob | null => buffer && wavOfBuffer(buffer)

/** Sound as a WAV file, 16 bits. */
export const wavOfBuffer = (buffer: AudioBuffer): Blob => new Blob([toWav(buffer)], { type: 'audio/wav' })

/** A score as a WAV file, 16 bits, stereo. */
export const wavOf = async (score: Score, mix: Mix, rounds: number, rendering: Rendering): Promise<Blob | null> =>
  inWav(await renderScore(score, mix, rounds, rendering))

/** Rounds one after another as a WAV file, each at its own tempo. */
export const wavOfRounds = async (scores: readonly Score[], mix: Mix, rendering: Rendering): Promise<Blob | null> => {
  const seconds = scores.reduce((sum, score) => sum + secondsOf(score), 0)
  const all = advance(emptySequence(0), { now: 0, strike: seconds, lay: seconds }, (n) => scores[n] ?? null)
  const lay = (voices: Voices): void => {
    for (const s of all.strikes) voices.strike(s.part, s.pitch, s.at, s.seconds, s.loudness)
  }
  return inWav(await renderSeconds(seconds + TAIL, mix, lay, rendering))
}
