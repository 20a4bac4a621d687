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
import { go } from '../../state/address/address.ts'
import { editText } from '../../state/charts/editing.ts'
import { openFromLibrary } from '../../state/charts/library.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import { answerOffer, changeRow, standingOf } from '../../state/kept/rows.ts'
import type { Standing } from '../../state/kept/standing.ts'
import { editorWanted } from '../../state/page/focus.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { RowTrouble, standingWords } from '../overlay/RowTrouble.tsx'
import styles from './ChartsView.module.css'
import type { Editor } from './editor.ts'
import { errorSentence } from './error-sentence.ts'

/** A chart's text moved by an interval, as far as it reads. */
const moved = (text: string, by: Interval): string => {
  const { chart } = checkChart(text)
  return chart ? transposeChartText(text, chart, by) : text
}

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
  readonly standing: Standing<ChartRow>
  readonly openChart: OpenChart
  readonly editor: RefObject<Editor | null>
}

/** A chart's text in the player's written pitch, checked at each key press, kept by itself. */
export const ChartEditor = ({ standing, openChart, editor }: Props) => {
  const { row, unread, offered } = standing
  const { written } = openChart.instrument
  const host = useRef<HTMLDivElement>(null)
  const typedText = typeof unread.text === 'string' ? unread.text : row.text
  const shown = useMemo(() => moved(typedText, written), [typedText, written])
  const [text, setText] = useState(shown)
  const [failed, setFailed] = useState(false)
  const sent = useRef(row.text)
  const latest = useRef({ written, openChart, row, shown })
  latest.current = { written, openChart, row, shown }

  const typed = (next: string): void => {
    setText(next)
    const checked = checkChart(next)
    const back = reverse(latest.current.written)
    const concert = checked.chart ? transposeChartText(next, checked.chart, back) : next
    sent.current = concert
    editText(latest.current.row, concert, checked)
  }
  const placed = (at: number): void => {
    const { chart } = checkChart(editor.current?.text() ?? '')
    const spot = chart && spotsOf(chart).find((s) => s.text.at <= at && at <= s.text.end)
    const now = latest.current.openChart.current
    if (!spot || (now?.spot.bar === spot.bar && now.spot.at === spot.at)) return
    go({ bar: spot.bar, beat: beatOf(spot), over: null, sounds: null, home: null })
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: the editor lives as long as its chart is open
  useEffect(() => {
    let gone = false
    sent.current = typedText
    setText(shown)
    setFailed(false)
    void import('./editor.ts').then(
      ({ mountEditor }) => {
        if (gone || !host.current) return
        // It may have been changed elsewhere while the editor was on its way.
        editor.current = mountEditor(host.current, latest.current.shown, typed, placed)
        if (editorWanted.now) editor.current.focusEnd()
        editorWanted.now = false
      },
      () => setFailed(!gone),
    )
    return () => {
      gone = true
      editor.current?.destroy()
      editor.current = null
    }
  }, [row.id, written])
  useEffect(() => {
    // What was rendered may be a key press old by now: only what stands in the store can be somebody else's.
    const now = standingOf('charts', row.id)
    const theirs = now?.unread.text ?? now?.row.text
    if (typeof theirs !== 'string' || theirs === sent.current || theirs !== typedText) return
    sent.current = typedText
    setText(shown)
    editor.current?.setText(shown)
  }, [typedText, shown, editor, row.id])

  const { errors } = useMemo(() => checkChart(text), [text])
  const takeUp = () => {
    const { text: left, ...others } = offered?.patch ?? {}
    if (typeof left === 'string') editor.current?.replace(0, text.length, moved(left, written))
    if (Object.keys(others).length > 0) changeRow('charts', row.id, others)
    answerOffer('charts', row.id, false)
  }
  return (
    <section className={styles.editor} aria-label="Text">
      <RowTrouble
        kind="charts"
        standing={standing}
        textOf={(r) => moved(r.text, written)}
        onTakeUp={takeUp}
        onAnew={openFromLibrary}
      />
      {failed && (
        <div role="alert">
          <p>The editor could not be loaded: the program is not answering.</p>
          <Button onClick={() => location.reload()}>Try again</Button>
        </div>
      )}
      <div ref={host} className={styles.host} />
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
        {standingWords(standing)}
      </p>
    </section>
  )
}
