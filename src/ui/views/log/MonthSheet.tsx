import { useStore } from '@nanostores/react'
import { format } from 'date-fns'
import { useEffect } from 'react'
import { createPortal } from 'react-dom'
import { Table } from '../../parts/Table.tsx'
import { FIRST } from '../../state/page/first.ts'
import { $cards, $course, askCards, askCourse } from '../../state/practice/figures.ts'
import { $items } from '../../state/practice/items.ts'
import { $entries, $entriesNext, moreEntries } from '../../state/practice/logging.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { keyWords } from '../overlay/key-words.ts'
import styles from './LogView.module.css'
import { dayText, entryWords } from './words.ts'

const DAYS = 31

/** The month on paper: its days, what one wrote, and where each card stands. */
export const MonthSheet = ({ openChart, onDone }: { readonly openChart: OpenChart; readonly onDone: () => void }) => {
  const course = useStore($course)
  const cards = useStore($cards)
  const items = useStore($items)
  const entries = useStore($entries)
  const next = useStore($entriesNext, FIRST)
  const ready = course.state === 'ready' && cards.state === 'ready' && next !== undefined
  useEffect(() => {
    void askCourse(DAYS, '', '')
    void askCards()
    if ($entriesNext.get() === undefined) void moreEntries()
  }, [])
  useEffect(() => {
    if (!ready) return
    const wait = setTimeout(() => {
      window.print()
      onDone()
    }, 200)
    return () => clearTimeout(wait)
  }, [ready, onDone])
  const days = course.value?.days ?? []
  const since = days[0]?.day ?? ''
  const nameOf = (id: string | null): string | null => items.find((i) => i.id === id)?.name ?? null
  const isQuiz = (id: string): boolean => items.find((i) => i.id === id)?.of.kind === 'quiz'
  const whole = days.reduce((sum, d) => sum + d.minutes, 0)
  const practised = days.filter((d) => d.minutes > 0 || d.rounds > 0)
  const words = entries.filter((e) => e.kind === 'word' && e.at.slice(0, 10) >= since)
  const played = (cards.value?.cards ?? []).filter((c) => c.last !== null && c.last.slice(0, 10) >= since)
  return createPortal(
    <div className={`paper ${styles.month}`}>
      <h1>
        Practice, {since === '' ? '' : format(new Date(`${since}T12:00:00`), 'd MMMM')} to{' '}
        {format(new Date(), 'd MMMM yyyy')}
      </h1>
      <p>
        {Math.round(whole)} minutes on {practised.length} of {days.length} days.
      </p>
      <Table
        className={styles.table}
        heads={['day', 'minutes', 'rounds', 'clean of 100']}
        rows={practised.map((d) => [
          dayText(`${d.day}T12:00:00`),
          d.minutes.toFixed(0),
          String(d.rounds),
          d.clean === null ? '–' : String(Math.round(d.clean * 100)),
        ])}
      />
      {words.length > 0 && <h2>In words</h2>}
      <ul>
        {words.map((e) => (
          <li key={e.id}>
            {dayText(e.at)}: {entryWords(e, null, openChart)}
          </li>
        ))}
      </ul>
      <h2>Where each stands</h2>
      <Table
        className={styles.table}
        heads={['item', 'tempo', 'fastest clean', 'rounds']}
        rows={played.map((c) => [
          `${nameOf(c.itemId)} in ${keyWords(c.key, openChart)}`,
          isQuiz(c.itemId) ? '–' : String(c.tempo),
          c.best === null ? '–' : String(c.best),
          String(c.rounds),
        ])}
      />
    </div>,
    document.body,
  )
}
