import { useStore } from '@nanostores/react'
import { useMemo, useState } from 'react'
import { type Audit, type School, type Sentence, toGlyphs, verdictOf } from '../../../core/index.ts'
import { sentenceByPlace } from '../../figures/verdict-places.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import type { Kept } from '../../state/kept/kept.ts'
import type { KeptNote, LineRow } from '../../state/kept/row-types.ts'
import { lineAsk } from '../../state/line/lines.ts'
import { $marked, $verdict, isDisputed, lookAt, toggleDispute } from '../../state/line/verdict.ts'
import styles from './LineView.module.css'
import { useLineAnalysis } from './use-line-analysis.ts'

/** Schools to lay beside one's own: what differs in them. */
const BESIDE: Readonly<Record<string, Partial<School>>> = {
  'an angular player': { wayHome: 'angular', strongBeats: 'chromatic welcome' },
  'a modal player': { suspensions: 'free', fourOverDominant: 'colour' },
  'a strict arranger': { suspensions: 'kept out', strongBeats: 'chord tones', wayHome: 'smooth' },
}

interface ListProps {
  readonly sentences: readonly Sentence[]
  readonly name: string
  readonly row: LineRow
  readonly heard: Audit['notes']
}

const SIGNS = { fault: '!', plain: '·', good: '✓' } as const

const Sentences = ({ sentences, name, row, heard }: ListProps) => {
  const marked = useStore($marked)
  return (
    <ul aria-label={name} className={styles.sentences}>
      {sentences.map((s) => {
        const disputed = isDisputed(row, s)
        const words = toGlyphs(sentenceByPlace(s.text, heard))
        return (
          <li key={s.text}>
            <button
              type="button"
              aria-pressed={marked.join() === s.notes.join()}
              className={disputed ? styles.disputed : styles[s.tone]}
              onClick={() => lookAt(s)}
            >
              <span aria-hidden="true">{SIGNS[s.tone]}</span> {words}
              {disputed && <strong> You: not so.</strong>}
            </button>
            <Button
              tone="quiet"
              pressed={disputed}
              aria-label={`Dispute: ${words}`}
              title={disputed ? 'Take the dispute back' : 'Not so: it stays disputed'}
              onClick={() => toggleDispute(row, s)}
            >
              not so
            </Button>
          </li>
        )
      })}
      {sentences.length === 0 && <li>Nothing to say.</li>}
    </ul>
  )
}

interface Props {
  readonly row: LineRow
  readonly notes: readonly KeptNote[]
  readonly kept: Kept
  /** The line as it is heard in the player's pitch. */
  readonly heard: Audit['notes']
}

/** What the player's school says of a line, and another beside it; a sentence shows the notes it speaks of. */
export const Verdict = ({ row, notes, kept, heard }: Props) => {
  const own = useStore($verdict)
  const [beside, setBeside] = useState('')
  const change = BESIDE[beside]
  const ask = useMemo(() => (change ? lineAsk(row, notes, kept, change) : null), [change, row, notes, kept])
  const { lineAnalysis } = useLineAnalysis(ask, `${row.id} ${beside}`)
  const other = useMemo(() => lineAnalysis && ask && verdictOf(lineAnalysis.audit, ask.school), [lineAnalysis, ask])
  return (
    <section className={styles.verdict} aria-label="Verdict">
      <div className={styles.head}>
        <h2>Verdict</h2>
        <Select
          label="Beside it"
          value={beside}
          options={[{ value: '', label: 'nobody' }, ...Object.keys(BESIDE).map((b) => ({ value: b, label: b }))]}
          onPick={setBeside}
        />
      </div>
      <div className={other ? styles.both : styles.alone}>
        <Sentences sentences={own} name="Your school" row={row} heard={heard} />
        {other && <Sentences sentences={other} name={beside} row={row} heard={heard} />}
      </div>
    </section>
  )
}
