import { useMemo, useState } from 'react'
import { type School, type Sentence, toGlyphs, verdictOf } from '../../../core/index.ts'
import { Select } from '../../parts/Select.tsx'
import type { Desk } from '../../stores/desk.ts'
import type { Kept } from '../../stores/kept.ts'
import { goToNote, type Taken, takeApart } from '../../stores/lines.ts'
import type { KeptNote, LineRow } from '../../stores/rows.ts'
import { settingsFrom } from '../../stores/settings.ts'
import styles from './LineView.module.css'

/** Schools to lay beside one's own: what differs in them. */
const BESIDE: Readonly<Record<string, Partial<School>>> = {
  'an angular player': { wayHome: 'angular', strongBeats: 'chromatic welcome' },
  'a modal player': { suspensions: 'free', fourOverDominant: 'colour' },
  'a strict arranger': { suspensions: 'kept out', strongBeats: 'chord tones', wayHome: 'smooth' },
}

interface ListProps {
  readonly sentences: readonly Sentence[]
  readonly name: string
  readonly marked: readonly number[]
  readonly onMark: (notes: readonly number[]) => void
}

const SIGNS = { fault: '!', plain: '·', good: '✓' } as const

const Sentences = ({ sentences, name, marked, onMark }: ListProps) => (
  <ul aria-label={name} className={styles.sentences}>
    {sentences.map((s) => {
      const on = marked.join() === s.notes.join()
      return (
        <li key={s.text}>
          <button
            type="button"
            aria-pressed={on}
            className={styles[s.tone]}
            onClick={() => {
              onMark(on ? [] : s.notes)
              goToNote(s.notes[0] ?? 0)
            }}
          >
            <span aria-hidden="true">{SIGNS[s.tone]}</span> {toGlyphs(s.text)}
          </button>
        </li>
      )
    })}
    {sentences.length === 0 && <li>Nothing to say.</li>}
  </ul>
)

interface Props {
  readonly taken: Taken
  readonly row: LineRow
  readonly notes: readonly KeptNote[]
  readonly kept: Kept
  readonly desk: Desk
  readonly marked: readonly number[]
  readonly onMark: (notes: readonly number[]) => void
}

/** What the player's school says of a line, and another beside it; a sentence shows the notes it speaks of. */
export const Verdict = ({ taken, row, notes, kept, desk, marked, onMark }: Props) => {
  const [beside, setBeside] = useState('')
  const { school } = desk.settings
  const other = useMemo(() => {
    const change = BESIDE[beside]
    if (!change) return null
    const again = takeApart(row, notes, kept, change)
    return again && verdictOf(again.audit, { ...settingsFrom(kept.settings).school, ...change })
  }, [beside, row, notes, kept])
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
        <Sentences sentences={verdictOf(taken.audit, school)} name="Your school" marked={marked} onMark={onMark} />
        {other && <Sentences sentences={other} name={beside} marked={marked} onMark={onMark} />}
      </div>
    </section>
  )
}
