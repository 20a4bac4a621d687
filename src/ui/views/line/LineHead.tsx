import { useStore } from '@nanostores/react'
import { useEffect, useState } from 'react'
import type { Chart, LineAnalysis } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { MOST_ZOOM } from '../../state/address/parts/line.ts'
import { renameRow } from '../../state/kept/kept.ts'
import type { LineRow } from '../../state/kept/row-types.ts'
import { beginLine } from '../../state/line/line-editing.ts'
import { removeLine } from '../../state/line/lines.ts'
import { $marked } from '../../state/line/verdict.ts'
import { copyTable } from '../../state/page/copying.ts'
import { openPrinting } from '../../state/page/dialogs.ts'
import { FIRST } from '../../state/page/first.ts'
import { $rendering, cancelWav, saveWav } from '../../state/sound/saving.ts'
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

/** Where a file of a line is fetched; the band in it plays by the player's school. */
const fileOf = ({ id }: LineRow, as: string, { settings }: Props['openChart']): string =>
  `/api/v1/lines/${id}/export?as=${as}&${new URLSearchParams({ school: JSON.stringify(settings.school) })}`

/** The line over its band as a sound file; it can be stopped. */
const LineSound = ({ name }: { readonly name: string }) => {
  const share = useStore($rendering, FIRST)
  return share === null ? (
    <Button onClick={() => void saveWav(name, 1)}>WAV</Button>
  ) : (
    <Button onClick={cancelWav}>Stop ({Math.round(share * 100)} %)</Button>
  )
}

const Name = ({ row }: { readonly row: LineRow }) => {
  const [name, setName] = useState(row.name)
  useEffect(() => setName(row.name), [row.name])
  return (
    <input
      aria-label="Name of the line"
      value={name}
      maxLength={200}
      onChange={(e) => setName(e.target.value)}
      onBlur={() => void renameRow('lines', row, name)}
      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
    />
  )
}

interface Props extends ViewProps {
  readonly chart: Chart
  /** The lines over the open chart, and the one in view. */
  readonly rows: readonly LineRow[]
  readonly row: LineRow | null
  readonly lineAnalysis: LineAnalysis | null
  /** Whether lines are being made, and no kept one is in view. */
  readonly isMaking?: boolean
}

/** Which line is in view, its name, how it is shown, its files, and how a new one begins. */
export const LineHead = ({ address, kept, openChart, chart, rows, row, lineAnalysis, isMaking = false }: Props) => (
  <div className={styles.head}>
    <h1>Line</h1>
    <Button pressed={isMaking} title="e" onClick={() => go({ make: isMaking ? 'off' : 'make', note: 0 })}>
      Make
    </Button>
    {(isMaking || row) && <Button onClick={openPrinting}>Print</Button>}
    {isMaking && (
      <Button pressed={address.tab} onClick={() => go({ tab: !address.tab })}>
        Tablature
      </Button>
    )}
    {!isMaking && rows.length > 0 && (
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
    {!isMaking && row && <Name row={row} />}
    {row && lineAnalysis && (
      <>
        {(['vary', 'reuse'] as const).map((make) => (
          <Button
            key={make}
            pressed={address.make === make}
            onClick={() => go({ make: address.make === make ? 'off' : make })}
          >
            {make === 'vary' ? 'Vary' : 'Reuse'}
          </Button>
        ))}
        <Button pressed={address.write} onClick={() => go({ write: !address.write })}>
          Write
        </Button>
        <Button pressed={address.tab} onClick={() => go({ tab: !address.tab })}>
          Tablature
        </Button>
        <Button
          aria-label="Narrower"
          disabled={address.zoom <= -MOST_ZOOM}
          onClick={() => go({ zoom: address.zoom - 1 })}
        >
          −
        </Button>
        <Button aria-label="Wider" disabled={address.zoom >= MOST_ZOOM} onClick={() => go({ zoom: address.zoom + 1 })}>
          +
        </Button>
        <details className={styles.files}>
          <summary>Files</summary>
          <div className={styles.fileList}>
            {FORMATS.map(([as, label]) => (
              <a key={label} href={fileOf(row, as, openChart)} download>
                {label}
              </a>
            ))}
            <LineSound name={row.name} />
            <Button onClick={() => void copyTable(auditText(row, lineAnalysis, openChart.settings.school))}>
              Copy as text
            </Button>
            <Button tone="quiet" onClick={() => void removeLine(row)}>
              Remove
            </Button>
          </div>
        </details>
      </>
    )}
    {!isMaking && (
      <>
        <Button onClick={() => beginLine()}>New line</Button>
        <BringLine chart={chart} kept={kept} />
      </>
    )}
  </div>
)
