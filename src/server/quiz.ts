import Joi from 'joi'
import { QUIZ_KIND_NAMES, QUIZ_TOPIC_NAMES, quizKinds, quizOf } from '../core/index.ts'
import { drawnFrom } from './drawn.ts'

/** What `POST /quiz` takes: what may be asked, how many questions, and the number they are drawn from. */
export interface QuizAsked {
  readonly topics: readonly string[]
  readonly n: number
  readonly seed: number
}

export const QUIZ_BODY = Joi.object<QuizAsked>({
  topics: Joi.array()
    .items(Joi.string().valid(...QUIZ_TOPIC_NAMES, ...QUIZ_KIND_NAMES))
    .min(1)
    .max(40)
    .default(QUIZ_TOPIC_NAMES),
  n: Joi.number().integer().min(1).max(200).default(10),
  seed: Joi.number()
    .integer()
    .min(0)
    .max(2 ** 31)
    .default(1),
})

const text = Joi.string().required()
export const QUIZ_ANSWER = Joi.object({
  questions: Joi.array()
    .items(
      Joi.object({
        kind: text,
        ask: text,
        choices: Joi.array().items(Joi.string()).required(),
        answer: text,
        proof: text,
        wrong: Joi.array()
          .items(Joi.object({ choice: text, why: text }))
          .required(),
        hear: Joi.array().items(
          Joi.object({ chord: text, pitches: Joi.array().items(Joi.number().integer()).required() }),
        ),
      }),
    )
    .required(),
})

/** Questions with their answers' proofs, as the interface answers them. */
export const quizAnswer = ({ topics, n, seed }: QuizAsked) => ({
  questions: quizOf(quizKinds(topics), n, drawnFrom(seed)).map(({ kind, ask, choices, answer, proof, hear }) => ({
    ...(hear ? { hear } : {}),
    ...{ kind, ask, choices: choices.map((c) => c.text), answer, proof },
    wrong: choices.flatMap(({ text: choice, why }) => (why === null ? [] : [{ choice, why }])),
  })),
})
