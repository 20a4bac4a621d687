import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import { readChord, readOverlay, toGlyphs, transposeChord, transposeOverlay } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { AT_START, go } from '../../state/address/address.ts'
import type { ItemRow } from '../../state/kept/row-types.ts'
import { standingOf } from '../../state/kept/rows.ts'
import { $found, type FoundRow, findKept } from '../../state/practice/finding.ts'
import { playItem } from '../../state/sound/sessions.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { dayWords } from '../overlay/day-words.ts'
import { useItems } from '../overlay/use-practice.ts'
import type { ViewProps } from '../view.ts'
import styles from './LogView.module.css'

const NOUNS = { ideas: 'idea', lines: 'line', routes: 'route', takes: 'take' } as const
const REST_MS = 250

/** An idea by its names in the player's written pitch. */
const nameOf = (row: FoundRow, { instrument }: OpenChart): string => {
  const idea = row.kind === 'ideas' ? standingOf('ideas', row.id)?.row : undefined
  const [overlay, chord] = [idea && readOverlay(idea.overlay), idea && readChord(idea.chord)]
  if (!overlay?.ok || !chord?.ok) return toGlyphs(row.name)
  const { written } = instrument
  return toGlyphs(
    `${transposeOverlay(overlay.value, written).name} over ${transposeChord(chord.value, written).symbol}`,
  )
}

const openRow = ({ kind, id, chartId, bar, beat }: FoundRow): void => {
  const at = { ...AT_START, chart: chartId, sketch: null }
  if (kind === 'lines') return go({ ...at, view: 'line', line: id })
  if (kind === 'routes') return go({ ...at, view: 'route', panel: 'kept' })
  if (kind === 'takes') return go({ ...at, view: 'practice', practise: 'takes', take: id, otherTake: null })
  const idea = standingOf('ideas', id)?.row
  if (chartId !== null && idea) return go({ ...at, view: 'desk', bar: bar ?? 1, beat: beat ?? 1, over: idea.overlay })
  if (idea)
    go({
      ...AT_START,
      view: 'desk',
      chart: null,
      sketch: `| ${idea.chord} | ${idea.next ?? '%'} |`,
      over: idea.overlay,
    })
}

/** Ideas, lines, routes and practice items, found by a word, a chord or a tag; the last changed first. */
export const KeptPanel = ({ kept, openChart }: ViewProps) => {
  const found = useStore($found)
  const items = useItems()
  const [word, setWord] = useState('')
  useEffect(() => {
    const wait = setTimeout(() => void findKept(word.trim()), word === '' ? 0 : REST_MS)
    return () => clearTimeout(wait)
  }, [word])
  const own = items.filter((i: ItemRow) => i.name.toLowerCase().includes(word.trim().toLowerCase()))
  const titleOf = (id: string | null): string => kept.charts.find((c) => c.id === id)?.title ?? ''
  return (
    <div className={styles.entries}>
      <label className={styles.find}>
        A word, a chord, a tag <input value={word} onChange={(e) => setWord(e.target.value)} />
      </label>
      {found.state === 'failed' && (
        <p role="alert">
          It could not be looked for. <Button onClick={() => void findKept(word.trim())}>Try again</Button>
        </p>
      )}
      {found.state === 'found' && found.rows.length + own.length === 0 && <p>Nothing of that name is kept.</p>}
      <ul className={styles.plain} aria-label="Kept">
        {own.map((item) => (
          <li key={item.id} className={styles.keptRow}>
            <span>item</span>
            <strong>{item.name}</strong>
            <span />
            <span>{dayWords(item.updatedAt)}</span>
            <Button onClick={() => playItem(item, null)}>Play</Button>
          </li>
        ))}
        {found.rows.map((row) => (
          <li key={`${row.kind} ${row.id}`} className={styles.keptRow}>
            <span>{NOUNS[row.kind]}</span>
            <strong>{nameOf(row, openChart)}</strong>
            <span>{titleOf(row.chartId)}</span>
            <span>{dayWords(row.at)}</span>
            <Button onClick={() => openRow(row)}>Open</Button>
          </li>
        ))}
      </ul>
    </div>
  )
}
