import { useMemo, useState } from 'react'
import { noteSentence, placeOf, readChord, readOver, readOverlay, toGlyphs } from '../../../core/index.ts'
import { notePhrase } from '../../../sound/sound.ts'
import { Slope } from '../../figures/Slope.tsx'
import { Button } from '../../parts/Button.tsx'
import { AT_START, go } from '../../state/address/address.ts'
import { loadFerry } from '../../state/charts/ferry.ts'
import { removeChart } from '../../state/charts/library.ts'
import type { Kept } from '../../state/kept/kept.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import { hear } from '../../state/sound/hearing.ts'
import { ask } from '../../state/tune/asking.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './NoChart.module.css'
import { NotOpen } from './NotOpen.tsx'

const EXAMPLES = ['B minor pentatonic over Eb7 to Abmaj7', 'Ab & Bb+ over Ab7', '| F#m7 | B7 | Emaj7 |'] as const

const openFirst = (kept: Kept): void => {
  const [first] = kept.charts
  if (first) go({ chart: first.id, sketch: null, ...AT_START })
}

/** What can be done with a kept chart that does not read: its text is as it was. */
const Unread = ({ row }: { readonly row: ChartRow }) => (
  <div className={styles.tools}>
    <Button tone="strong" onClick={() => go({ view: 'charts' })}>
      Mend its text
    </Button>
    <a className={styles.link} href={`/api/v1/charts/${row.id}/export?as=text`} download>
      Save it as a file
    </a>
    <Button onClick={() => void removeChart(row)}>Remove it</Button>
  </div>
)

const ANSWER = { overlay: 'B minor pentatonic', chord: 'Eb7', next: 'Abmaj7' } as const

/** One real answer, to be pressed about in: an overlay over a chord, each note as far out as it is, and its way home. */
const Answer = ({ openChart }: { readonly openChart: OpenChart }) => {
  const [chosen, setChosen] = useState<number | null>(null)
  const { school, weights } = openChart.settings
  const reading = useMemo(() => {
    const [overlay, chord, next] = [readOverlay(ANSWER.overlay), readChord(ANSWER.chord), readChord(ANSWER.next)]
    return overlay.ok && chord.ok && next.ok
      ? readOver(overlay.value, placeOf(chord.value, next.value, school), weights)
      : null
  }, [school, weights])
  if (!reading) return null
  const note = reading.notes[chosen ?? reading.notes.indexOf(reading.worst)]
  return (
    <section className={styles.answer} aria-label="An answer">
      <h2>{toGlyphs(`${ANSWER.overlay} over ${ANSWER.chord}, going to ${ANSWER.next}`)}</h2>
      <div className={styles.slope}>
        <Slope
          reading={reading}
          chosen={chosen}
          onChoose={setChosen}
          onHear={(i) => void hear(notePhrase(reading.notes[i]?.note.pc ?? 0, reading.place.chord))}
        />
      </div>
      {note && <p aria-live="polite">{toGlyphs(noteSentence(note, reading))}</p>}
      <Button onClick={() => ask(`${ANSWER.overlay} over ${ANSWER.chord} to ${ANSWER.next}`)}>
        Open it on the Desk
      </Button>
    </section>
  )
}

/** Nothing open: what to do next. Or a chart that is gone or does not read: what is wrong, and the way on. */
export const NoChart = ({ kept, openChart }: { readonly kept: Kept; readonly openChart: OpenChart }) => {
  if (kept.loading || openChart.working)
    return (
      <p className={styles.empty} role="status">
        Opening the chart …
      </p>
    )
  if (kept.failed !== null)
    return (
      <div className={styles.empty}>
        <NotOpen kept={kept} />
      </div>
    )
  const { chartError } = openChart
  if (chartError || kept.missing)
    return (
      <div className={styles.empty} role="alert">
        <h1>{chartError ? 'This chart does not read' : 'This chart is not here any more'}</h1>
        {chartError ? (
          <p>
            At sign {chartError.at + 1}: “{chartError.found}”. Expected {chartError.expected.map(toGlyphs).join(', ')}.
          </p>
        ) : (
          <p>It was removed, or the address is from elsewhere. Nothing else is lost.</p>
        )}
        {chartError && kept.chart && !openChart.isSketch && <Unread row={kept.chart} />}
        {kept.charts.length > 0 && <Button onClick={() => openFirst(kept)}>Open {kept.charts[0]?.title}</Button>}
      </div>
    )
  return (
    <div className={styles.first}>
      <div className={styles.empty}>
        <h1>Lay something over a chord</h1>
        <p>
          Crossfade shows how far out each note is, and how it comes home to the next chord. Ask above (key /), or begin
          with one of these:
        </p>
        <ul className={styles.examples}>
          {EXAMPLES.map((q) => (
            <li key={q}>
              <Button onClick={() => ask(q)}>{toGlyphs(q)}</Button>
            </li>
          ))}
        </ul>
        {kept.charts.length > 0 ? (
          <Button tone="strong" onClick={() => openFirst(kept)}>
            Open {kept.charts[0]?.title}
          </Button>
        ) : (
          <>
            <Button tone="strong" onClick={() => void loadFerry()}>
              Load the ferry band’s charts
            </Button>
            <p className={styles.soft}>
              Six invented charts with routes, lines and ideas. Or drop a file anywhere: chart text, MusicXML or ABC.
            </p>
          </>
        )}
      </div>
      <Answer openChart={openChart} />
    </div>
  )
}
