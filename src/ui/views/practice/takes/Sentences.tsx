import { useStore } from '@nanostores/react'
import { type TakeSentence, toGlyphs } from '../../../../core/index.ts'
import { Button } from '../../../parts/Button.tsx'
import type { TakeRow } from '../../../state/kept/row-types.ts'
import { FIRST } from '../../../state/page/first.ts'
import { $heardTake, listenBack, stopListening } from '../../../state/sound/listening-back.ts'
import { disputedAs, disputeSentence } from '../../../state/takes/takes.ts'
import styles from './Takes.module.css'

const TONES = { good: 'good', plain: 'so', fault: 'mend' } as const

/** What is told of a take, in at most five sentences; each is heard where it speaks of, and can be disputed. */
export const Sentences = ({
  row,
  sentences,
  chosen,
  onChoose,
}: {
  readonly row: TakeRow
  readonly sentences: readonly TakeSentence[]
  readonly chosen: TakeSentence | null
  readonly onChoose: (sentence: TakeSentence | null) => void
}) => {
  const heard = useStore($heardTake, FIRST)
  return (
    <ol className={styles.sentences} aria-label="What is told of it">
      {sentences.map((s) => {
        const words = disputedAs(s.about, s.bars)
        const isDisputed = (row.disputed ?? []).includes(words)
        const isHeard =
          heard?.id === row.id && heard.span.from <= s.from + 1 && heard.span.to >= s.to - 1 && chosen === s
        return (
          <li
            key={words}
            data-tone={s.tone}
            data-disputed={isDisputed ? 'yes' : undefined}
            aria-current={chosen === s ? 'true' : undefined}
          >
            <span className={styles.tone}>{isDisputed ? 'disputed' : TONES[s.tone]}</span>
            <button type="button" className={styles.sentence} onClick={() => onChoose(chosen === s ? null : s)}>
              {toGlyphs(s.text)}
            </button>
            <Button
              pressed={isHeard}
              aria-label={`${isHeard ? 'Stop' : 'Listen to'} bars ${s.bars[0]} to ${s.bars[1]}`}
              onClick={() => {
                onChoose(s)
                if (isHeard) stopListening()
                else void listenBack(row, s)
              }}
            >
              {isHeard ? 'Stop' : 'Listen'}
            </Button>
            <Button pressed={isDisputed} onClick={() => disputeSentence(row, words)}>
              {isDisputed ? 'Let it stand' : 'I dispute it'}
            </Button>
          </li>
        )
      })}
    </ol>
  )
}
