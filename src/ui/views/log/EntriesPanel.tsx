import { useStore } from '@nanostores/react'
import { format } from 'date-fns'
import { useEffect, useState } from 'react'
import { GRADES } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import type { LogRow } from '../../state/kept/row-types.ts'
import { FIRST } from '../../state/page/first.ts'
import {
  $entries,
  $entriesFailed,
  $entriesNext,
  changeEntry,
  logWord,
  moreEntries,
  removeEntry,
} from '../../state/practice/logging.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { useItems } from '../overlay/use-practice.ts'
import type { ViewProps } from '../view.ts'
import styles from './LogView.module.css'
import { clockText, dayText, entryWords } from './words.ts'

const Write = () => {
  const [text, setText] = useState('')
  const [day, setDay] = useState(() => format(new Date(), 'yyyy-MM-dd'))
  const write = () => {
    if (text.trim() === '') return
    const now = new Date()
    const [y = 0, m = 1, d = 1] = day.split('-').map(Number)
    const at = new Date(y, m - 1, d, now.getHours(), now.getMinutes(), now.getSeconds())
    logWord(text.trim(), (Number.isNaN(at.getTime()) ? now : at).toISOString())
    setText('')
  }
  return (
    <form
      className={styles.write}
      onSubmit={(e) => {
        e.preventDefault()
        write()
      }}
    >
      <label className={styles.word}>
        A sentence, a gig, a feeling
        <input value={text} maxLength={4000} onChange={(e) => setText(e.target.value)} />
      </label>
      <label>
        Day
        <input type="date" value={day} onChange={(e) => setDay(e.target.value)} />
      </label>
      <Button type="submit" tone="strong">
        Write
      </Button>
    </form>
  )
}

const Entry = ({
  entry,
  itemName,
  openChart,
}: {
  readonly entry: LogRow
  readonly itemName: string | null
  readonly openChart: OpenChart
}) => (
  <li className={styles.entry}>
    <time dateTime={entry.at}>{clockText(entry.at)}</time>
    <span className={entry.kind === 'word' ? styles.said : undefined}>{entryWords(entry, itemName, openChart)}</span>
    {entry.grade !== null && (
      <Select
        label={`Grade of ${entryWords(entry, itemName, openChart)}`}
        labelHidden
        value={entry.grade}
        options={GRADES.map((g) => ({ value: g, label: g }))}
        onPick={(grade) => changeEntry(entry, { grade })}
      />
    )}
    <Button
      tone="quiet"
      aria-label={`Remove ${entryWords(entry, itemName, openChart)}`}
      onClick={() => void removeEntry(entry.id)}
    >
      ×
    </Button>
  </li>
)

/** Every entry, day by day, the last first; one's own sentences among them. */
export const EntriesPanel = ({ openChart }: ViewProps) => {
  const entries = useStore($entries)
  const next = useStore($entriesNext, FIRST)
  const failed = useStore($entriesFailed, FIRST)
  const items = useItems()
  const [word, setWord] = useState('')
  useEffect(() => {
    if (next === undefined) void moreEntries()
  }, [next])
  const nameOf = (id: string | null): string | null => items.find((i) => i.id === id)?.name ?? null
  const found = entries.filter((e) =>
    `${entryWords(e, nameOf(e.itemId), openChart)} ${e.kind} ${dayText(e.at)}`
      .toLowerCase()
      .includes(word.toLowerCase()),
  )
  const days = [...new Set(found.map((e) => dayText(e.at)))]
  return (
    <div className={styles.entries}>
      <Write />
      <label className={styles.find}>
        Find <input value={word} onChange={(e) => setWord(e.target.value)} />
      </label>
      {failed !== null && (
        <p role="alert">
          The log could not be fetched: {failed} <Button onClick={() => void moreEntries()}>Try again</Button>
        </p>
      )}
      {next === undefined && failed === null && <p role="status">Fetching the log …</p>}
      {next !== undefined && entries.length === 0 && (
        <p>
          Nothing yet. What you grade on the player is written here by itself; a sentence of your own is written above.
        </p>
      )}
      {days.map((day) => (
        <section key={day} aria-label={day}>
          <h2>{day}</h2>
          <ul className={styles.plain}>
            {found
              .filter((e) => dayText(e.at) === day)
              .map((e) => (
                <Entry key={e.id} entry={e} itemName={nameOf(e.itemId)} openChart={openChart} />
              ))}
          </ul>
        </section>
      ))}
      {next && <Button onClick={() => void moreEntries()}>Earlier</Button>}
    </div>
  )
}
