import { midi, readChord } from '../../../core/index.ts'
import { inTurnOver } from '../../../sound/sound.ts'
import { questionNow } from '../practice/quiz.ts'
import { hear } from './hearing.ts'

/** Slow enough to be named. */
const TEMPO = 72

/** Sounds the question in hand, where it is one for the ear. */
export const hearQuestion = (): void => {
  const parts = (questionNow()?.question.hear ?? []).flatMap(({ chord, pitches }) => {
    const read = readChord(chord)
    return read.ok ? [{ chord: read.value, pitches: pitches.map(midi) }] : []
  })
  const phrase = inTurnOver(parts, TEMPO)
  if (phrase) void hear(phrase)
}
