import { useStore } from '@nanostores/react'
import { useEffect } from 'react'
import { toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { choose } from '../../state/address/address.ts'
import { QUIZ_TOPICS } from '../../state/address/parts/practice.ts'
import { FIRST } from '../../state/page/first.ts'
import { $course, askCourse } from '../../state/practice/figures.ts'
import {
  $quiz,
  answerQuiz,
  beginQuiz,
  endQuiz,
  goOnQuiz,
  type Put,
  QUIZ_LENGTH,
  topicsFrom,
} from '../../state/practice/quiz.ts'
import { $session } from '../../state/practice/session.ts'
import { hearQuestion } from '../../state/sound/quiz-hearing.ts'
import { ANSWERING, stopAnswering, toggleAnswering } from '../../state/sound/quiz-playing.ts'
import { goOnToNextBlock } from '../../state/sound/sessions.ts'
import type { ViewProps } from '../view.ts'
import styles from './PracticeView.module.css'

const Confusions = () => {
  const { value } = useStore($course, FIRST)
  useEffect(() => void askCourse(30, '', ''), [])
  if (!value || value.confusions.length === 0) return null
  return (
    <section aria-label="Confusions" className={styles.confusions}>
      <h2>Taken for each other</h2>
      <ul className={styles.plain}>
        {value.confusions.slice(0, 8).map((c) => (
          <li key={`${c.topic} ${c.right} ${c.given}`}>
            <strong>{toGlyphs(c.right)}</strong> taken for <strong>{toGlyphs(c.given)}</strong>, {c.times} of {c.asked}
          </li>
        ))}
      </ul>
    </section>
  )
}

const choiceClass = (put: Put, text: string): string => {
  if (put.given === null) return ''
  if (text === put.question.answer) return styles.rightChoice ?? ''
  return text === put.given ? (styles.wrongChoice ?? '') : ''
}

const Question = ({ put }: { readonly put: Put }) => {
  const { question, given } = put
  const isRight = given === question.answer
  const why = question.choices.find((c) => c.text === given)?.why
  return (
    <section aria-label="Question" className={styles.question}>
      <p className={styles.ask}>{toGlyphs(question.ask)}</p>
      {question.hear && (
        <Button tone="strong" title="Space" onClick={hearQuestion}>
          Hear it
        </Button>
      )}
      <ol className={styles.choices}>
        {question.choices.map((c, i) => (
          <li key={c.text}>
            <Button
              className={`${styles.choice} ${choiceClass(put, c.text)}`}
              disabled={given !== null && c.text !== given && c.text !== question.answer}
              onClick={() => answerQuiz(c.text)}
            >
              <kbd>{i + 1}</kbd> {toGlyphs(c.text)}
              {given !== null && c.text === question.answer && <span> ✓</span>}
              {given === c.text && !isRight && <span> not this</span>}
            </Button>
          </li>
        ))}
      </ol>
      <div role="status" className={styles.proof}>
        {given !== null && (
          <>
            <p>
              <strong>{isRight ? 'Right.' : `No: ${toGlyphs(question.answer)}.`}</strong> {toGlyphs(question.proof)}{' '}
              {!isRight && why ? toGlyphs(why) : ''}
              {!isRight && ' It comes again soon.'}
            </p>
            <Button tone="strong" title="Enter" onClick={goOnQuiz}>
              Next question
            </Button>
          </>
        )}
      </div>
    </section>
  )
}

const AnswerBy = ({ by }: { readonly by: keyof typeof ANSWERING }) => {
  const name = useStore(ANSWERING[by].$name, FIRST)
  return (
    <Button pressed={name !== null} title={name ?? ''} onClick={() => toggleAnswering(by)}>
      Answer by playing ({by})
    </Button>
  )
}

/** Questions by eye and by ear, answered by taps, digits, the pedal or by playing; no clock. */
export const QuizPanel = ({ address }: ViewProps) => {
  const quiz = useStore($quiz, FIRST)
  const session = useStore($session, FIRST)
  useEffect(() => stopAnswering, [])
  const put = quiz?.put.at(-1)
  const hears = put?.question.hear
  const isNew = put?.given === null
  // biome-ignore lint/correctness/useExhaustiveDependencies: a new question for the ear sounds by itself, once the first was begun
  useEffect(() => {
    if (hears && isNew) hearQuestion()
  }, [put?.question])
  const begin = () => beginQuiz(null, topicsFrom(address.topic === 'any' ? null : [address.topic]))
  return (
    <div className={styles.quiz}>
      <div className={styles.row}>
        <Select
          label="Ask me about"
          value={address.topic}
          options={QUIZ_TOPICS.map((t) => ({ value: t, label: t === 'any' ? 'anything' : t }))}
          onPick={(topic) => choose('what the quiz asks', { topic })}
        />
        <Button tone={quiz ? 'plain' : 'strong'} title="Space" onClick={begin}>
          {quiz ? 'Begin anew' : 'Begin'}
        </Button>
        {quiz && <Button onClick={endQuiz}>End</Button>}
        <AnswerBy by="MIDI" />
        <AnswerBy by="microphone" />
        {session && <Button onClick={goOnToNextBlock}>Next block</Button>}
        {quiz && (
          <span className={styles.tally}>
            {quiz.right} right, {quiz.wrong} wrong
            {quiz.right + quiz.wrong >= QUIZ_LENGTH && ' · ten asked: a good place to stop'}
          </span>
        )}
      </div>
      {put ? (
        <Question put={put} />
      ) : (
        <p className={styles.hint}>Answer with 1 to 4, or tap. Enter goes on. No clock runs.</p>
      )}
      <Confusions />
    </div>
  )
}
