import { useEffect, useState } from 'react'
import type { Chart, Taken } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { copyTable } from '../../stores/copying.ts'
import { beginLine } from '../../stores/line-editing.ts'
import { removeLine, renameLine } from '../../stores/lines.ts'
import { go, MOST_ZOOM } from '../../stores/place.ts'
import type { LineRow } from '../../stores/rows.ts'
import { $marked } from '../../stores/verdict.ts'
import type { ViewProps } from '../view.ts'
import { auditText } from './audit-table.ts'
import { BringLine } from './BringLine.tsx'
import styles from './LineView.module.css'

const FORMATS = [
  ['musicxml', 'MusicXML'],
  ['midi', 'MIDI'],
  ['midi&band=true', 'MIDI with the band'],
  ['abc', 'ABC'],
  ['csv', 'table'],
] as const

const Name = ({ row }: { readonly row: LineRow }) => {
  const [name, setName] = useState(row.name)
  useEffect(() => setName(row.name), [row.name])
  return (
    <input
      aria-label="Name of the line"
      value={name}
      maxLength={200}
      onChange={(e) => setName(e.target.value)}
      onBlur={() => void renameLine(row, name)}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  )
}

interface Props extends ViewProps {
  readonly chart: Chart
  /** The lines over the open chart, and the one in view. */
  readonly rows: readonly LineRow[]
  readonly row: LineRow | null
  readonly taken: Taken | null
}

/** Which line is in view, its name, how it is shown, its files, and how a new one begins. */
export const LineHead = ({ place, kept, desk, chart, rows, row, taken }: Props) => (
  <div className={styles.head}>
    <h1>Line</h1>
    {rows.length > 0 && (
      <Select
        label="Which line"
        labelHidden
        value={row?.id ?? ''}
        options={rows.map((r) => ({ value: r.id, label: r.name }))}
        onPick={(line) => {
          $marked.set([])
          go({ line, note: 0 })
        }}
      />
    )}
    {row && <Name row={row} />}
    {row && taken && (
      <>
        <Button pressed={place.write} onClick={() => go({ write: !place.write })}>
          Write
        </Button>
        <Button pressed={place.tab} onClick={() => go({ tab: !place.tab })}>
          Tablature
        </Button>
        <Button aria-label="Narrower" disabled={place.zoom <= -MOST_ZOOM} onClick={() => go({ zoom: place.zoom - 1 })}>
          −
        </Button>
        <Button aria-label="Wider" disabled={place.zoom >= MOST_ZOOM} onClick={() => go({ zoom: place.zoom + 1 })}>
          +
        </Button>
        <details className={styles.files}>
          <summary>Files</summary>
          <div className={styles.fileList}>
            {FORMATS.map(([as, label]) => (
              <a key={label} href={`/api/v1/lines/${row.id}/export?as=${as}`} download>
                {label}
              </a>
            ))}
            <Button onClick={() => void copyTable(auditText(row, taken, desk.settings.school))}>Copy as text</Button>
            <Button tone="quiet" onClick={() => void removeLine(row)}>
              Remove
            </Button>
          </div>
        </details>
      </>
    )}
    <Button onClick={() => void beginLine()}>New line</Button>
    <BringLine chart={chart} kept={kept} />
  </div>
)
