import { midi, readChord, reverse, transposeChord, UNISON } from '../../../core/index.ts'
import { inTurnOver } from '../../../sound/sound.ts'
import { questionNow } from '../practice/quiz.ts'
import { $openChart } from '../tune/open-chart.ts'
import { hear } from './hearing.ts'

/** Slow enough to be named. */
const TEMPO = 72

/** Sounds the question in hand, where it is one for the ear. */
export const hearQuestion = (): void => {
  // What is asked is read in written pitch, like everything on the screen.
  const written = $openChart.get()?.instrument.written ?? UNISON
  const parts = (questionNow()?.question.hear ?? []).flatMap(({ chord: symbol, pitches }) => {
    const read = readChord(symbol)
    if (!read.ok) return []
    const chord = transposeChord(read.value, reverse(written))
    return [{ chord, pitches: pitches.map((p) => midi(p - written.semitones)) }]
  })
  const phrase = inTurnOver(parts, TEMPO)
  if (phrase) void hear(phrase)
}
