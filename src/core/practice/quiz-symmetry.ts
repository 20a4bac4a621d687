import { materialNamed } from '../material/material.ts'
import { placeOn } from '../material/overlay.ts'
import { plainNote } from '../pitch/note.ts'
import { periodOf } from '../pitch/pcset.ts'
import { pitchClass } from '../pitch/units.ts'
import { dominantsBehind } from '../symmetry/dominants.ts'
import { drawn, type Rng } from './drawing.ts'
import type { Choice, Made } from './quiz.ts'
import { chordOf } from './quiz-degrees.ts'

const behind = (pc: number): string =>
  (dominantsBehind(chordOf(pc, 'dim7')) ?? []).map((d) => d.dominant.symbol.replace('(b9)', '')).join(' ')

export const dominantsQuestion = (rng: Rng): Made => {
  const pc = Math.floor(rng() * 12)
  const chord = chordOf(pc, 'dim7')
  return {
    ask: `Which four dominants stand behind ${chord.symbol}?`,
    right: behind(pc),
    wrong: [1, 2].map((by): Choice => {
      const other = chordOf(pc + by, 'dim7')
      return { text: behind(pc + by), why: `Those stand behind ${other.symbol}.` }
    }),
    proof: `Their roots lie a half step below the notes of ${chord.symbol}, which are their b9, 3, 5 and b7.`,
  }
}

const SYMMETRIC = ['whole tone', 'half-whole', 'whole-half', 'augmented scale', 'ionian', 'altered'] as const
const PERIODS = [1, 2, 3, 4, 6, 12] as const

export const repeatsQuestion = (rng: Rng): Made => {
  const name = drawn(SYMMETRIC, rng)
  const scale = placeOn(plainNote(pitchClass(Math.floor(rng() * 12))), materialNamed(name))
  const period = periodOf(scale.set)
  const words = (n: number): string =>
    n === 12 ? 'only at the octave' : `after ${n} half ${n === 1 ? 'step' : 'steps'}`
  return {
    ask: `Where does ${scale.name} come again with the same notes?`,
    right: words(period),
    wrong: PERIODS.filter((n) => n !== period && (n > period ? n % period !== 0 || n === 12 : true)).map((n) => ({
      text: words(n),
      why: n === 12 ? 'It comes again sooner.' : `Moved by ${n} it has other notes.`,
    })),
    proof: `Moved by ${period} half ${period === 1 ? 'step' : 'steps'} it has the same ${scale.notes.length} notes, and by fewer it has not.`,
  }
}
