import { useRef } from 'react'
import { Button } from '../../parts/Button.tsx'
import { retag } from '../../state/charts/editing.ts'
import { readIn } from '../../state/charts/importing.ts'
import { addChart, duplicateChart, removeChart } from '../../state/charts/library.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import styles from './ChartsView.module.css'

const NEW_TEXT = 'title = New chart\nmetre = 4/4\ntempo = 120\n\n== A\n| Cmaj7 | % | % | % |\n'
const FILES = '.txt,.musicxml,.xml,.mxl,.abc,.mid,.midi,text/plain'

/** A new chart, or one from a file. */
export const BringIn = () => {
  const file = useRef<HTMLInputElement>(null)
  return (
    <div className={styles.tools}>
      <Button tone="strong" onClick={() => void addChart('New chart', NEW_TEXT)}>
        New
      </Button>
      <Button onClick={() => file.current?.click()}>From a file</Button>
      <input
        ref={file}
        type="file"
        hidden
        aria-label="Chart file"
        accept={FILES}
        onChange={(e) => {
          const [picked] = e.target.files ?? []
          if (picked) void readIn(picked)
          e.target.value = ''
        }}
      />
    </div>
  )
}

const Tags = ({ row }: { readonly row: ChartRow }) => (
  <label className={styles.tags}>
    Tags
    <input
      key={row.tags.join()}
      defaultValue={row.tags.join(', ')}
      onBlur={(e) => {
        const words = e.target.value.split(',').map((t) => t.trim())
        const tags = words.filter((t) => t !== '')
        if (tags.join() !== row.tags.join()) retag(row, tags)
      }}
    />
  </label>
)

const EXPORTS = [
  ['text', 'Text'],
  ['musicxml', 'MusicXML'],
  ['abc', 'ABC'],
] as const

interface Props {
  readonly row: ChartRow
  readonly onTranspose: (semitones: number) => void
  /** Puts repeat signs around the bars that are selected in the text. */
  readonly onRepeat: () => void
}

/** What can be done with the open chart as a whole. */
export const ChartTools = ({ row, onTranspose, onRepeat }: Props) => (
  <>
    <div className={styles.head}>
      <h2>{row.title}</h2>
      <Tags row={row} />
    </div>
    <div className={styles.tools}>
      <Button title="the whole chart a half step down" onClick={() => onTranspose(-1)}>
        ½ down
      </Button>
      <Button title="the whole chart a half step up" onClick={() => onTranspose(1)}>
        ½ up
      </Button>
      <Button title="repeat signs around the bars selected in the text" onClick={onRepeat}>
        Repeat
      </Button>
      <Button onClick={() => void duplicateChart(row)}>Duplicate</Button>
      <Button onClick={() => void removeChart(row)}>Remove</Button>
      <span className={styles.exports}>
        Save as
        {EXPORTS.map(([as, name]) => (
          <a key={as} href={`/api/v1/charts/${row.id}/export?as=${as}`} download>
            {name}
          </a>
        ))}
      </span>
    </div>
  </>
)
