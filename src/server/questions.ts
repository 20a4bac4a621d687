import { ANYTHING, placeOf, type Question, readOver } from '../core/index.ts'
import { chartAnswer, chordAnswer, materialAnswer, readingAnswer } from './answers.ts'
import { ANY_PAIR, degreesOn, type Judges, overlaysAnswer, pairsAnswer } from './rankings.ts'

const LONG_CHART = 16

/** Whether an answer is a whole list, or a chart long enough, to be worked out aside. */
export const isLong = (question: Question): boolean =>
  question.kind === 'pairs' ||
  question.kind === 'overlays' ||
  (question.kind === 'chart' && question.chart.bars.length > LONG_CHART)

const FIRST_PAGE = { limit: 50, offset: 0 }

/** The answer to a question, with its kind. Roles and fade are by the chord that sounds; the named one explains. */
export const answer = (question: Question, judges: Judges) => {
  switch (question.kind) {
    case 'reading': {
      const heard = question.sounding ?? question.chord
      const reading = readOver(question.overlay, placeOf(heard, question.next, judges.school), judges.weights)
      return { kind: question.kind, ...readingAnswer(reading, question.chord, question.sounding, judges.weights) }
    }
    case 'material':
      return { kind: question.kind, ...materialAnswer(question.overlay) }
    case 'chord':
      return { kind: question.kind, ...chordAnswer(question.chord) }
    case 'chart':
      return { kind: question.kind, ...chartAnswer(question.chart, question.text) }
    case 'pairs': {
      const { kind, chord, next } = question
      return { kind, ...pairsAnswer(chord, next, ANY_PAIR, judges, FIRST_PAGE) }
    }
    case 'overlays': {
      const { kind, chord, next, hold, families } = question
      const wish = { ...ANYTHING, hold: degreesOn(chord, hold), families: families ?? ANYTHING.families }
      return { kind, ...overlaysAnswer(chord, next, wish, judges, FIRST_PAGE) }
    }
  }
}
