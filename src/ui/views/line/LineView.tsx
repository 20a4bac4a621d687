import { useStore } from '@nanostores/react'
import { useEffect, useMemo } from 'react'
import { MOST, said, sameBeat, toGlyphs, verdictOf } from '../../../core/index.ts'
import { LineBand } from '../../figures/LineBand.tsx'
import { Button } from '../../parts/Button.tsx'
import { dropHeldLine, heldLine, putBackHeld, putOnStaff } from '../../stores/line-editing.ts'
import { tapNote } from '../../stores/line-hearing.ts'
import { tablatureOf } from '../../stores/line-tab.ts'
import {
  $lineNotes,
  $lines,
  $linesFailed,
  $taken,
  fetchNotes,
  firstNoteAt,
  lineAsk,
  notesOf,
  refreshLines,
  removeLine,
} from '../../stores/lines.ts'
import { $place, go } from '../../stores/place.ts'
import { $playing, musicTick } from '../../stores/playing.ts'
import type { KeptNote, LineRow } from '../../stores/rows.ts'
import { $marked, $verdict } from '../../stores/verdict.ts'
import { NoChart } from '../overlay/NoChart.tsx'
import type { ViewProps } from '../view.ts'
import { LineHead } from './LineHead.tsx'
import { LineSides } from './LineSides.tsx'
import styles from './LineView.module.css'
import { useTaken } from './use-taken.ts'
import { Verdict } from './Verdict.tsx'
import { WriteBar } from './WriteBar.tsx'

/** A line from before there was a bound. */
const isTooLong = (notes: readonly KeptNote[]): boolean => {
  const last = notes.at(-1)
  return notes.length > MOST.notes || (last !== undefined && last.at + last.for > MOST.ticks)
}

/** Line: what each note of a line is and does, where it leaves home and how it lands, and what a school says of it. */
const LineView = ({ place, kept, desk }: ViewProps) => {
  const all = useStore($lines)
  const failed = useStore($linesFailed)
  const known = useStore($lineNotes)
  const playing = useStore($playing)
  const marked = useStore($marked)
  useEffect(() => {
    void refreshLines()
  }, [])
  const chartId = kept.chart?.id ?? null
  const rows = (all ?? []).filter((r) => r.chartId === chartId)
  const row = (all ?? []).find((r) => r.id === place.line) ?? rows[0] ?? null
  const notes = row && notesOf(row, known)
  const text = row?.chartId === chartId ? kept.chart?.text : row?.text
  useEffect(() => {
    if (row && text) void fetchNotes(row, text)
  }, [row, text])
  const { school } = desk.settings
  // Not by the place: walking through the notes takes nothing apart anew.
  const long = notes !== null && isTooLong(notes)
  const ask = useMemo(() => (row && notes && !long ? lineAsk(row, notes, kept) : null), [row, notes, long, kept])
  const { taken, waiting } = useTaken(ask, row?.id ?? '')
  useEffect(() => {
    $taken.set(taken)
    $verdict.set(taken ? verdictOf(taken.audit, school) : [])
  }, [taken, school])
  const tab = useMemo(
    () => (taken && place.tab ? tablatureOf(taken.audit.notes, desk) : null),
    [taken, place.tab, desk],
  )
  const { bar, beat } = place
  useEffect(() => {
    if (!taken || (bar === 1 && beat === 1)) return
    const { notes: heard, timeline } = taken.audit
    const sounding = heard[$place.get()?.note ?? 0]?.sounding
    const spot = sounding?.spot.spot
    if (spot?.bar === bar && sameBeat(1 + spot.at / timeline.beat, beat)) return
    const first = firstNoteAt(taken, bar, beat)
    if (first >= 0) go({ note: first })
  }, [taken, bar, beat])
  if (!desk.chart || desk.isSketch)
    return (
      <div className={styles.empty}>
        {desk.isSketch ? (
          <p role="status">Keep the sketch as a chart first: a line lies over a kept one.</p>
        ) : (
          <NoChart kept={kept} desk={desk} />
        )}
      </div>
    )
  if (failed)
    return (
      <div className={styles.empty} role="alert">
        <p>The lines could not be fetched. Nothing is lost.</p>
        <Button onClick={() => void refreshLines()}>Try again</Button>
      </div>
    )
  const current = Math.min(place.note, (taken?.audit.notes.length ?? 1) - 1)
  return (
    <div className={styles.view}>
      <LineHead place={place} kept={kept} desk={desk} chart={desk.chart} rows={rows} row={row} taken={taken} />
      {taken ? (
        <>
          <LineBand
            chart={taken.chart}
            keyHere={desk.key}
            audit={taken.audit}
            current={current}
            marked={marked}
            clef={desk.settings.clef}
            tab={tab}
            zoom={place.zoom}
            music={playing ? musicTick : null}
            onGo={tapNote}
            onStaff={place.write ? putOnStaff : null}
          />
          {row && heldLine(row) && (
            <p className={styles.held} role="status">
              Notes that could not be kept are held in this browser.{' '}
              <Button onClick={() => putBackHeld(row)}>Put them back</Button>
              <Button tone="quiet" onClick={() => dropHeldLine(row)}>
                Drop them
              </Button>
            </p>
          )}
          {place.write && <WriteBar />}
          <div className={styles.below}>
            <Verdict row={row as LineRow} notes={notes ?? []} kept={kept} />
            <LineSides
              side={place.lineSide}
              taken={taken}
              row={row as LineRow}
              notes={notes ?? []}
              desk={desk}
              current={current}
            />
          </div>
        </>
      ) : (
        <div className={styles.empty}>
          {all === null || (row && !notes) ? (
            <p role="status">Fetching the lines …</p>
          ) : row && long ? (
            <p role="alert">
              {toGlyphs(row.name)} is longer than {said(MOST.notes)} notes or {said(MOST.bars)} bars, and is not taken
              apart. It is kept as it is: <a href={`/api/v1/lines/${row.id}/export?as=csv`}>save it as a table</a>, or{' '}
              <Button onClick={() => void removeLine(row)}>Remove it</Button>
            </p>
          ) : waiting ? (
            <p role="status">Taking the line apart …</p>
          ) : row ? (
            <p role="alert">{toGlyphs(row.name)} lies over no chart that reads.</p>
          ) : (
            <p>
              No line lies over this chart yet. Write a new one, or bring one: a MIDI file, or a tune in ABC or
              MusicXML.
            </p>
          )}
        </div>
      )}
    </div>
  )
}

export default LineView
