import { useStore } from '@nanostores/react'
import { useRef } from 'react'
import { checkChart, chordInterval, repeatEdits, transposeChartText } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import type { Address } from '../../state/address/address.ts'
import { readIn } from '../../state/charts/importing.ts'
import { addChart } from '../../state/charts/library.ts'
import type { Kept } from '../../state/kept/kept.ts'
import { $rows } from '../../state/kept/rows.ts'
import { asKept } from '../../state/kept/standing.ts'
import { FIRST } from '../../state/page/first.ts'
import { say } from '../../state/page/notices.ts'
import { closeSketch } from '../../state/tune/asking.ts'
import { NotOpen } from '../overlay/NotOpen.tsx'
import type { ViewProps } from '../view.ts'
import { ChartEditor } from './ChartEditor.tsx'
import styles from './ChartsView.module.css'
import { BringIn, ChartTools } from './ChartTools.tsx'
import type { Editor } from './editor.ts'
import { ImportDialog } from './ImportDialog.tsx'
import { LeftBehind } from './LeftBehind.tsx'
import { LibraryTable } from './LibraryTable.tsx'
import { Side } from './Side.tsx'

/** What stands in the editor's place where no kept chart is open. */
const NoChart = ({ address, isSketch, kept }: { address: Address; isSketch: boolean; kept: Kept }) =>
  isSketch ? (
    <>
      <h2>A sketch is open</h2>
      <p>It is not kept yet.</p>
      <div className={styles.tools}>
        <Button tone="strong" onClick={() => void addChart('Sketch', `title = Sketch\n\n${address.sketch ?? ''}\n`)}>
          Keep it as a chart
        </Button>
        <Button onClick={() => void closeSketch()}>Leave it</Button>
      </div>
    </>
  ) : (
    <NotOpen kept={kept} />
  )

/** Charts: the library, the text of the open one, and its harmony in words. A file may be dropped anywhere on it. */
const ChartsView = ({ address, kept, openChart }: ViewProps) => {
  const editor = useRef<Editor | null>(null)
  const row = openChart.isSketch ? null : kept.chart
  const standing = useStore($rows.charts, FIRST)[row?.id ?? '']
  const transpose = (semitones: number) => {
    const shown = editor.current?.text() ?? ''
    const { chart } = checkChart(shown)
    if (chart) editor.current?.replace(0, shown.length, transposeChartText(shown, chart, chordInterval(semitones)))
  }
  const repeat = () => {
    const shown = editor.current?.text() ?? ''
    const { at, end } = editor.current?.selection() ?? { at: 0, end: 0 }
    const edits = repeatEdits(shown, at, end)
    if (edits) editor.current?.changeAll(edits)
    else say('Select the bars to repeat first; inside a repeat there can be no other.')
  }
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: dropping is a second way; the button is the first
    <div
      className={styles.view}
      onDragOver={(e) => e.preventDefault()}
      onDrop={(e) => {
        const [file] = e.dataTransfer.files
        if (!file) return
        e.preventDefault()
        void readIn(file)
      }}
    >
      <div className={styles.left}>
        <div className={styles.head}>
          <h1>Charts</h1>
          <BringIn />
        </div>
        <LibraryTable address={address} kept={kept} />
      </div>
      <div className={styles.middle}>
        {row ? (
          <>
            <ChartTools row={row} onTranspose={transpose} onRepeat={repeat} />
            <ChartEditor standing={standing ?? asKept(row)} openChart={openChart} editor={editor} />
            <LeftBehind row={row} kept={kept} openChart={openChart} />
          </>
        ) : (
          <NoChart address={address} isSketch={openChart.isSketch} kept={kept} />
        )}
      </div>
      {openChart.chart ? (
        <Side address={address} openChart={openChart} kept={kept} row={row} editor={editor} />
      ) : (
        <section className={styles.silent} aria-label="Harmony" />
      )}
      <ImportDialog />
    </div>
  )
}

export default ChartsView
