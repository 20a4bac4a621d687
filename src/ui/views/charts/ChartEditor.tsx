import { useStore } from '@nanostores/react'
import { type RefObject, useEffect, useMemo, useRef, useState } from 'react'
import {
  beatOf,
  checkChart,
  type Interval,
  lineAndColumn,
  mendedText,
  proposeMend,
  reverse,
  spotsOf,
  type TextError,
  toGlyphs,
  transposeChartText,
} from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import type { Desk } from '../../stores/desk.ts'
import { $draft, dropDraft, editText, heldDraft, settle } from '../../stores/drafting.ts'
import { go } from '../../stores/place.ts'
import type { ChartRow } from '../../stores/rows.ts'
import styles from './ChartsView.module.css'
import { errorSentence } from './chart-language.ts'
import type { Editor } from './editor.ts'

/** A chart's text moved by an interval, as far as it reads. */
const moved = (text: string, by: Interval): string => {
  const { chart } = checkChart(text)
  return chart ? transposeChartText(text, chart, by) : text
}

const STATES = {
  kept: 'Kept.',
  waiting: 'Keeping …',
  wrong: 'Not kept while something in it does not read; held in this browser.',
  unreachable: 'The program is not answering: held in this browser, and kept as soon as it answers.',
  conflict: 'Another tab kept this chart in the meantime.',
} as const

const Conflict = ({ theirs, mine }: { readonly theirs: ChartRow; readonly mine: string }) => (
  <div role="alert" className={styles.conflict}>
    <p>Another tab kept this chart in the meantime. Nothing is lost: choose which stands.</p>
    <div className={styles.both}>
      <section aria-label="Yours">
        <h3>Here</h3>
        <pre>{mine}</pre>
        <Button tone="strong" onClick={() => settle('mine')}>
          Keep this one
        </Button>
      </section>
      <section aria-label="Theirs">
        <h3>From the other tab</h3>
        <pre>{theirs.text}</pre>
        <Button onClick={() => settle('theirs')}>Take that one</Button>
      </section>
    </div>
  </div>
)

interface ErrorsProps {
  readonly text: string
  readonly errors: readonly TextError[]
  readonly onMend: (at: number, end: number, becomes: string) => void
}

const MOST_SHOWN = 4

const Errors = ({ text, errors, onMend }: ErrorsProps) => (
  <ul className={styles.errors} aria-label="What does not read">
    {errors.slice(0, MOST_SHOWN).map((e) => {
      const { line, column } = lineAndColumn(text, e.at)
      const mend = proposeMend(text, e)
      const becomes = mend && (mendedText(text, mend).split('\n')[line - 1] ?? '').trim()
      return (
        <li key={`${e.at} ${e.code}`}>
          <span>
            Line {line}, column {column}. {errorSentence(e)}
          </span>
          {mend && (
            <Button onClick={() => onMend(mend.at, mend.end, mend.becomes)} title={becomes ?? ''}>
              {mend.becomes.trim() ? `Make it ${toGlyphs(mend.becomes.trim())}` : 'Take it out'}
            </Button>
          )}
        </li>
      )
    })}
    {errors.length > MOST_SHOWN && <li>and {errors.length - MOST_SHOWN} more</li>}
  </ul>
)

interface Props {
  readonly row: ChartRow
  readonly desk: Desk
  readonly editor: RefObject<Editor | null>
}

/** A chart's text in the player's written pitch, checked at each key press, kept by itself. */
export const ChartEditor = ({ row, desk, editor }: Props) => {
  const draft = useStore($draft)
  const { written } = desk.instrument
  const host = useRef<HTMLDivElement>(null)
  const shown = useMemo(() => moved(row.text, written), [row.text, written])
  const [text, setText] = useState(shown)
  const [held, setHeld] = useState<string | null>(null)
  const sent = useRef(row.text)
  const latest = useRef({ written, desk })
  latest.current = { written, desk }

  const typed = (next: string): void => {
    setText(next)
    const checked = checkChart(next)
    const back = reverse(latest.current.written)
    const concert = checked.chart ? transposeChartText(next, checked.chart, back) : next
    sent.current = concert
    editText(concert, checked)
  }
  const placed = (at: number): void => {
    const { chart } = checkChart(editor.current?.text() ?? '')
    const spot = chart && spotsOf(chart).find((s) => s.text.at <= at && at <= s.text.end)
    const now = latest.current.desk.current
    if (!spot || (now?.spot.bar === spot.bar && now.spot.at === spot.at)) return
    go({ bar: spot.bar, beat: beatOf(spot, chart.metre), over: null, sounds: null, home: null })
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: the editor lives as long as its chart is open
  useEffect(() => {
    let gone = false
    setHeld(heldDraft(row))
    sent.current = row.text
    setText(shown)
    void import('./editor.ts').then(({ mountEditor }) => {
      if (gone || !host.current) return
      editor.current = mountEditor(host.current, shown, typed, placed)
    })
    return () => {
      gone = true
      editor.current?.destroy()
      editor.current = null
    }
  }, [row.id, written])
  useEffect(() => {
    if (row.text === sent.current) return
    sent.current = row.text
    setText(shown)
    editor.current?.setText(shown)
  }, [row.text, shown, editor])

  const { errors } = useMemo(() => checkChart(text), [text])
  const state = draft?.id === row.id ? draft.state : 'kept'
  const takeUp = () => {
    if (held !== null) editor.current?.replace(0, text.length, moved(held, written))
    setHeld(null)
  }
  return (
    <section className={styles.editor} aria-label="Text">
      {held !== null && (
        <div role="status" className={styles.held}>
          <span>Something typed here earlier was not kept.</span>
          <Button tone="strong" onClick={takeUp}>
            Take it up
          </Button>
          <Button
            onClick={() => {
              dropDraft(row.id)
              setHeld(null)
            }}
          >
            Drop it
          </Button>
        </div>
      )}
      {state === 'conflict' && draft?.theirs ? (
        <Conflict theirs={draft.theirs} mine={row.text} />
      ) : (
        <div ref={host} className={styles.host} />
      )}
      {errors.length > 0 && (
        <div role="alert">
          <Errors
            text={text}
            errors={errors}
            onMend={(at, end, becomes) => editor.current?.replace(at, end, becomes)}
          />
        </div>
      )}
      <p className={styles.soft} role="status">
        {STATES[errors.length > 0 && state === 'kept' ? 'wrong' : state]}
      </p>
    </section>
  )
}
