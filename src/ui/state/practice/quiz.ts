import { atom } from 'nanostores'
import {
  pitchClass,
  QUIZ_KIND_NAMES,
  type QuizKind,
  type QuizQuestion,
  quizKinds,
  quizQuestion,
} from '../../../core/index.ts'
import { logAnswer } from './logging.ts'

/** A question as it stands: what was answered, and when it was put. */
export interface Put {
  readonly question: QuizQuestion
  /** The choice that was taken; null while it waits. */
  readonly given: string | null
  /** Whether it comes again because it was answered wrongly. */
  readonly again: boolean
}

/** A quiz as it goes: what was put so far, the last one in hand. */
export interface Quizzing {
  readonly itemId: string | null
  readonly topics: readonly QuizKind[]
  readonly put: readonly Put[]
  readonly right: number
  readonly wrong: number
}
export const $quiz = atom<Quizzing | null>(null)

/** What was answered wrongly comes again after so many others. */
const AGAIN_AFTER = 2
/** As many of the past are remembered. */
const REMEMBERED = 20
/** As many questions make a quiz. */
export const QUIZ_LENGTH = 10

let due: { readonly question: QuizQuestion; after: number }[] = []
let putAt = 0

/** Kinds answered wrongly come up more often: each wrong answer counts as one more ticket. */
const draw = ({ topics, put }: Quizzing): QuizKind => {
  const tickets = topics.flatMap((t) => {
    const wrong = put.filter((p) => p.question.kind === t && p.given !== null && p.given !== p.question.answer).length
    return Array.from({ length: 1 + wrong }, () => t)
  })
  return tickets[Math.floor(Math.random() * tickets.length)] ?? 'degree'
}

const nextPut = (quiz: Quizzing): Put => {
  for (const d of due) d.after--
  const ready = due.find((d) => d.after < 0)
  if (ready) {
    due = due.filter((d) => d !== ready)
    return { question: ready.question, given: null, again: true }
  }
  return { question: quizQuestion(draw(quiz), Math.random), given: null, again: false }
}

/** Kinds there are among what an item or an address names; all of them where it names none. */
export const topicsFrom = (named: readonly string[] | null): readonly QuizKind[] => {
  const known = quizKinds(named ?? [])
  return known.length > 0 ? known : QUIZ_KIND_NAMES
}

export const beginQuiz = (itemId: string | null, topics: readonly QuizKind[]): void => {
  due = []
  putAt = performance.now()
  const empty: Quizzing = { itemId, topics, put: [], right: 0, wrong: 0 }
  $quiz.set({ ...empty, put: [nextPut(empty)] })
}
export const endQuiz = (): void => $quiz.set(null)

export const questionNow = (): Put | null => $quiz.get()?.put.at(-1) ?? null

const MOST_MINUTES = 2

/** Answers the question in hand; a wrong one comes again soon. */
export const answerQuiz = (given: string): void => {
  const quiz = $quiz.get()
  const now = quiz?.put.at(-1)
  if (!quiz || !now || now.given !== null) return
  const { question } = now
  const isRight = given === question.answer
  if (!isRight) due.push({ question, after: AGAIN_AFTER })
  $quiz.set({
    ...quiz,
    put: [...quiz.put.slice(0, -1), { ...now, given }],
    right: quiz.right + (isRight ? 1 : 0),
    wrong: quiz.wrong + (isRight ? 0 : 1),
  })
  const minutes = Math.min(MOST_MINUTES, Math.round(((performance.now() - putAt) / 60_000) * 100) / 100)
  logAnswer(quiz.itemId, { topic: question.kind, right: question.answer, given }, minutes)
}

/** Answers by a played note, where the answers are notes; tells whether one of them was meant. */
export const answerByPitch = (pitch: number): boolean => {
  const now = questionNow()
  const choice = now?.question.choices.find((c) => c.pc === pitchClass(pitch))
  if (now?.given !== null || !choice) return false
  answerQuiz(choice.text)
  return true
}

/** Puts the next question. */
export const goOnQuiz = (): void => {
  const quiz = $quiz.get()
  if (!quiz || quiz.put.at(-1)?.given === null) return
  putAt = performance.now()
  $quiz.set({ ...quiz, put: [...quiz.put.slice(-REMEMBERED), nextPut(quiz)] })
}
