import type { Rng } from './drawing.ts'
import { anyDegreeQuestion, functionQuestion, noteQuestion, wayHomeQuestion } from './quiz-degrees.ts'
import { degreeByEar, furtherOutByEar, howFarByEar, landedByEar, overlayByEar } from './quiz-ears.ts'
import { furtherOutQuestion, tensionsQuestion, whichOverlayQuestion } from './quiz-overlays.ts'
import { dominantsQuestion, repeatsQuestion } from './quiz-symmetry.ts'

/** One of the answers to choose from; `why` says why it is wrong, null for the right one. */
export interface Choice {
  readonly text: string
  readonly why: string | null
  /** The pitch class that answers so when it is played; where an answer is no note there is none. */
  readonly pc?: number
}

/** A question, all in ASCII names. The answer is one of the choices; `proof` says how it is worked out. */
export interface QuizQuestion {
  readonly kind: QuizKind
  readonly ask: string
  readonly choices: readonly Choice[]
  readonly answer: string
  readonly proof: string
  /** What sounds with it: MIDI pitches one after another, each part over its own chord. */
  readonly hear?: readonly { readonly chord: string; readonly pitches: readonly number[] }[]
}

/** What may be asked, and how a question of it is made. Null where what was drawn makes none: then it is drawn again. */
export const QUIZ_KINDS = {
  degree: anyDegreeQuestion,
  note: noteQuestion,
  'way home': wayHomeQuestion,
  function: functionQuestion,
  tensions: tensionsQuestion,
  'which overlay': whichOverlayQuestion,
  'further out': furtherOutQuestion,
  dominants: dominantsQuestion,
  repeats: repeatsQuestion,
  'degree by ear': degreeByEar,
  'overlay by ear': overlayByEar,
  'how far by ear': howFarByEar,
  'landing by ear': landedByEar,
  'further out by ear': furtherOutByEar,
} as const
export type QuizKind = keyof typeof QUIZ_KINDS
export const QUIZ_KIND_NAMES = Object.keys(QUIZ_KINDS) as readonly QuizKind[]

/** What is asked about, and the kinds of question it takes in. */
export const QUIZ_TOPICS = {
  degrees: ['degree', 'note'],
  overlays: ['tensions', 'which overlay', 'further out'],
  symmetric: ['dominants', 'repeats'],
  'ways home': ['way home'],
  function: ['function'],
  'by ear': ['degree by ear', 'overlay by ear', 'how far by ear', 'landing by ear', 'further out by ear'],
} as const satisfies Readonly<Record<string, readonly QuizKind[]>>
export type QuizTopic = keyof typeof QUIZ_TOPICS
export const QUIZ_TOPIC_NAMES = Object.keys(QUIZ_TOPICS) as readonly QuizTopic[]

/** The kinds of question that topics, or kinds by their own names, take in; what is neither is passed over. */
export const quizKinds = (named: readonly string[]): readonly QuizKind[] => {
  const asked = new Set(named.flatMap((n): readonly string[] => QUIZ_TOPICS[n as QuizTopic] ?? [n]))
  return QUIZ_KIND_NAMES.filter((k) => asked.has(k))
}

/** What a maker of questions gives: everything but its kind. */
export type Made = Omit<QuizQuestion, 'kind' | 'choices' | 'answer'> & {
  readonly right: string
  /** The pitch class that plays the right answer. */
  readonly pc?: number
  readonly wrong: readonly Choice[]
}

const MOST_WRONG = 3
const MOST_DRAWN = 50

const shuffled = <T>(all: readonly T[], rng: Rng): readonly T[] => {
  const rest = [...all]
  const out: T[] = []
  while (rest.length > 0) out.push(...rest.splice(Math.floor(rng() * rest.length), 1))
  return out
}

/** Each wrong answer once, and none that reads as the right one. */
const distinct = (right: string, wrong: readonly Choice[]): readonly Choice[] =>
  wrong.filter((c, i) => c.text !== right && wrong.findIndex((d) => d.text === c.text) === i)

/** One question of a kind, drawn by chance: the same numbers make the same question. */
export const quizQuestion = (kind: QuizKind, rng: Rng): QuizQuestion => {
  for (let i = 0; i < MOST_DRAWN; i++) {
    const made = QUIZ_KINDS[kind](rng)
    const wrong = made && distinct(made.right, made.wrong)
    if (!made || !wrong || wrong.length === 0) continue
    const { ask, right, proof, hear, pc } = made
    const choices = shuffled(
      [{ text: right, why: null, ...(pc === undefined ? {} : { pc }) }, ...shuffled(wrong, rng).slice(0, MOST_WRONG)],
      rng,
    )
    return { kind, ask, choices, answer: right, proof, ...(hear ? { hear } : {}) }
  }
  throw new Error(`no question of the kind ${kind} could be made`)
}

/** Questions of some kinds by turns. */
export const quizOf = (kinds: readonly QuizKind[], count: number, rng: Rng): readonly QuizQuestion[] =>
  Array.from({ length: count }, (_, i) => quizQuestion(kinds[i % kinds.length] as QuizKind, rng))
