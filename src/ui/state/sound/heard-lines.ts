import { heardIn, type Line, type Stage } from '../../../core/index.ts'
import { type HeardAsk, hearInWorker } from '../../../workers/start.ts'
import { lastFew } from '../tune/latest.ts'

/** Lines of rounds to be heard, by what was asked; those of the last few keys are enough. */
const lines = lastFew<Line>(16)

const wordsOf = (ask: HeardAsk): string => JSON.stringify(ask)

/** Works out aside what a round will sound, before it comes. */
export const prepareHeard = async (ask: HeardAsk): Promise<void> => {
  const words = wordsOf(ask)
  if (lines.get(words)) return
  // What is not there when its round comes is worked out then.
  const line = await hearInWorker(ask).catch(() => null)
  if (line !== null) lines.keep(words, line)
}

/** What a round sounds: as it was worked out before, else worked out now. */
export const heardLine = (ask: HeardAsk, stage: Stage): Line => lines.get(wordsOf(ask)) ?? heardIn(stage, ask.settings)
