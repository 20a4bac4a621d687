import { useRef } from 'react'
import { checkChart, chordInterval, repeatEdits, transposeChartText } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { readIn } from '../../stores/importing.ts'
import { addChart } from '../../stores/library.ts'
import { say } from '../../stores/notices.ts'
import { AT_START, go, type Place } from '../../stores/place.ts'
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
const NoChart = ({ place, isSketch, loading }: { place: Place; isSketch: boolean; loading: boolean }) =>
  isSketch ? (
    <>
      <h2>A sketch is open</h2>
      <p>It is not kept yet.</p>
      <div className={styles.tools}>
        <Button tone="strong" onClick={() => void addChart('Sketch', `title = Sketch\n\n${place.sketch ?? ''}\n`)}>
          Keep it as a chart
        </Button>
        <Button onClick={() => go({ sketch: null, ...AT_START })}>Leave it</Button>
      </div>
    </>
  ) : (
    <p role="status">{loading ? 'Opening the chart …' : 'No chart is open. Choose one, or begin a new one.'}</p>
  )

/** Charts: the library, the text of the open one, and its harmony in words. A file may be dropped anywhere on it. */
const ChartsView = ({ place, kept, desk }: ViewProps) => {
  const editor = useRef<Editor | null>(null)
  const row = desk.isSketch ? null : kept.chart
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
        <LibraryTable place={place} kept={kept} />
      </div>
      <div className={styles.middle}>
        {row ? (
          <>
            <ChartTools row={row} onTranspose={transpose} onRepeat={repeat} />
            <ChartEditor row={row} desk={desk} editor={editor} />
            <LeftBehind row={row} kept={kept} desk={desk} />
          </>
        ) : (
          <NoChart place={place} isSketch={desk.isSketch} loading={kept.loading} />
        )}
      </div>
      {desk.chart ? (
        <Side place={place} desk={desk} kept={kept} row={row} editor={editor} />
      ) : (
        <section className={styles.silent} aria-label="Harmony" />
      )}
      <ImportDialog />
    </div>
  )
}

export default ChartsView
