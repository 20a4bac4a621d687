import { useStore } from '@nanostores/react'
import { useEffect, useMemo } from 'react'
import { beatOf, MOST, pitchClass, plainNote, printCount, sameBeat, toGlyphs, verdictOf } from '../../../core/index.ts'
import { LineBand } from '../../figures/LineBand.tsx'
import { useShort } from '../../figures/short.ts'
import { Button } from '../../parts/Button.tsx'
import { $address, go } from '../../state/address/address.ts'
import { rowsIn } from '../../state/kept/lists.ts'
import type { KeptNote, LineRow } from '../../state/kept/row-types.ts'
import { $rows } from '../../state/kept/rows.ts'
import type { Standing } from '../../state/kept/standing.ts'
import { putOnStaff } from '../../state/line/line-editing.ts'
import { tablatureOf } from '../../state/line/line-tab.ts'
import {
  $lineAnalysis,
  $lineNotes,
  fetchNotes,
  firstNoteAt,
  lineAsk,
  lineHere,
  linesOver,
  notesOf,
  removeLine,
} from '../../state/line/lines.ts'
import { $marked, $verdict } from '../../state/line/verdict.ts'
import { FIRST } from '../../state/page/first.ts'
import { tapNote } from '../../state/sound/line-hearing.ts'
import { $playing, musicTick } from '../../state/sound/playing.ts'
import { NoChart } from '../overlay/NoChart.tsx'
import { RowTrouble, standingWords } from '../overlay/RowTrouble.tsx'
import { useOver } from '../overlay/use-over.ts'
import type { ViewProps } from '../view.ts'
import { LineHead } from './LineHead.tsx'
import { LineSides } from './LineSides.tsx'
import styles from './LineView.module.css'
import { MakeHalf } from './MakeHalf.tsx'
import { ReuseHalf } from './ReuseHalf.tsx'
import { useLineAnalysis } from './use-line-analysis.ts'
import { VaryHalf } from './VaryHalf.tsx'
import { Verdict } from './Verdict.tsx'
import { WriteBar } from './WriteBar.tsx'

/** A pitch in concert, by name and octave. */
const pitchName = (pitch: number): string => `${plainNote(pitchClass(pitch)).name}${Math.floor(pitch / 12) - 1}`
const lineText = (row: LineRow): string => {
  const { line, name } = row
  const pitches =
    'notes' in line ? line.notes.map((n) => (typeof n.pitch === 'number' ? pitchName(n.pitch) : n.pitch)) : []
  return toGlyphs(`${name}: ${pitches.length} notes\n${pitches.join(' ')}`)
}

/** What stands in the way of a line being kept. */
const LineTrouble = ({ standing }: { readonly standing: Standing<LineRow> }) => (
  <div className={styles.trouble}>
    <RowTrouble kind="lines" standing={standing} textOf={lineText} onAnew={(line) => go({ line, note: 0 })} />
    {(standing.state === 'unreachable' || standing.state === 'unreadable') && (
      <p className={styles.held} role="status">
        {standingWords(standing)}
      </p>
    )}
  </div>
)

/** A line from before there was a bound. */
const isTooLong = (notes: readonly KeptNote[]): boolean => {
  const last = notes.at(-1)
  return notes.length > MOST.notes || (last !== undefined && last.at + last.for > MOST.ticks)
}

/** Line: what each note of a line is and does, where it leaves home and how it lands, and what a school says of it. */
const LineView = ({ address, kept, openChart }: ViewProps) => {
  const standings = useStore($rows.lines, FIRST)
  const all = useMemo(() => rowsIn<'lines'>(standings), [standings])
  const known = useStore($lineNotes, FIRST)
  const playing = useStore($playing)
  const marked = useStore($marked)
  const isShort = useShort()
  const chartId = kept.chart?.id ?? null
  const { fetching, again } = useOver('lines', chartId)
  const rows = linesOver(kept, all)
  const row = lineHere(address, kept, all) ?? null
  const standing = row ? standings[row.id] : undefined
  const notes = row && notesOf(row, known)
  const text = row && row.chartId === chartId ? kept.chart?.text : row?.text
  useEffect(() => {
    if (row && text) void fetchNotes(row, text)
  }, [row, text])
  const { school } = openChart.settings
  // Not by the place: walking through the notes takes nothing apart anew.
  const long = notes !== null && isTooLong(notes)
  const ask = useMemo(() => (row && notes && !long ? lineAsk(row, notes, kept) : null), [row, notes, long, kept])
  const { lineAnalysis, waiting } = useLineAnalysis(ask, row?.id ?? '')
  const reads = address.make !== 'make'
  useEffect(() => {
    if (!reads) return
    $lineAnalysis.set(lineAnalysis)
    $verdict.set(lineAnalysis ? verdictOf(lineAnalysis.audit, school) : [])
  }, [lineAnalysis, school, reads])
  const tab = useMemo(
    () => (lineAnalysis && address.tab ? tablatureOf(lineAnalysis.audit.notes, openChart) : null),
    [lineAnalysis, address.tab, openChart],
  )
  const { bar, beat } = address
  useEffect(() => {
    if (!reads || !lineAnalysis || (bar === 1 && beat === 1)) return
    const { notes: heard } = lineAnalysis.audit
    const sounding = heard[$address.get()?.note ?? 0]?.sounding
    const spot = sounding?.spot.spot
    if (spot?.bar === bar && sameBeat(beatOf(spot), beat)) return
    const first = firstNoteAt(lineAnalysis, bar, beat)
    if (first >= 0) go({ note: first })
  }, [lineAnalysis, bar, beat, reads])
  if (address.make === 'make' && openChart.chart)
    return (
      <div className={styles.view}>
        <LineHead
          {...{ address, kept, openChart, rows, row, lineAnalysis: null }}
          chart={openChart.chart}
          isMaking={true}
        />
        <MakeHalf address={address} kept={kept} openChart={openChart} />
      </div>
    )
  if (!openChart.chart || openChart.isSketch)
    return (
      <div className={styles.empty}>
        {openChart.isSketch ? (
          <p role="status">Keep the sketch as a chart first: a line lies over a kept one.</p>
        ) : (
          <NoChart kept={kept} openChart={openChart} />
        )}
      </div>
    )
  if (fetching === 'failed' && !row)
    return (
      <div className={styles.empty} role="alert">
        <p>The lines could not be fetched. Nothing is lost.</p>
        <Button onClick={again}>Try again</Button>
      </div>
    )
  const current = Math.min(address.note, (lineAnalysis?.audit.notes.length ?? 1) - 1)
  return (
    <div className={styles.view}>
      <LineHead
        address={address}
        kept={kept}
        openChart={openChart}
        chart={openChart.chart}
        rows={rows}
        row={row}
        lineAnalysis={lineAnalysis}
      />
      {fetching === 'failed' && (
        <p className={styles.held} role="alert">
          The other lines could not be fetched. <Button onClick={again}>Try again</Button>
        </p>
      )}
      {lineAnalysis ? (
        <>
          {(address.make === 'off' || !isShort) && (
            <LineBand
              chart={lineAnalysis.chart}
              keyHere={openChart.key}
              audit={lineAnalysis.audit}
              current={current}
              marked={marked}
              clef={openChart.settings.clef}
              tab={tab}
              zoom={address.zoom}
              low={address.make !== 'off'}
              music={playing ? musicTick : null}
              onGo={tapNote}
              onStaff={address.write ? putOnStaff : null}
            />
          )}
          {standing && <LineTrouble standing={standing} />}
          {address.write && <WriteBar />}
          {address.make === 'vary' && row && notes && (
            <VaryHalf {...{ address, kept, openChart, row, notes, lineAnalysis }} />
          )}
          {address.make === 'reuse' && row && notes && <ReuseHalf {...{ address, kept, openChart, row, notes }} />}
          <div className={styles.below} hidden={address.make !== 'off'}>
            <Verdict row={row as LineRow} notes={notes ?? []} kept={kept} heard={lineAnalysis.audit.notes} />
            <LineSides
              side={address.lineSide}
              lineAnalysis={lineAnalysis}
              row={row as LineRow}
              notes={notes ?? []}
              openChart={openChart}
              current={current}
            />
          </div>
        </>
      ) : (
        <div className={styles.empty}>
          {(fetching === 'loading' && !row) || (row && !notes) ? (
            <p role="status">Fetching the lines …</p>
          ) : row && long ? (
            <p role="alert">
              {toGlyphs(row.name)} is longer than {printCount(MOST.notes)} notes or {printCount(MOST.bars)} bars, and is
              not taken apart. It is kept as it is:{' '}
              <a href={`/api/v1/lines/${row.id}/export?as=csv`}>save it as a table</a>, or{' '}
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
