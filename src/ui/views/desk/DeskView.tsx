import { useMemo, useState } from 'react'
import {
  DEFAULT_WEIGHTS,
  type Mend,
  mendsOf,
  noteSentence,
  type Reading,
  reverse,
  toGlyphs,
  transposeOverlay,
} from '../../../core/index.ts'
import { Slope } from '../../figures/Slope.tsx'
import { Button } from '../../parts/Button.tsx'
import { hearNote, hearOverlay, keep } from '../../stores/actions.ts'
import type { Desk } from '../../stores/desk.ts'
import { go, type Place } from '../../stores/place.ts'
import type { ViewProps } from '../view.ts'
import styles from './DeskView.module.css'
import { EmptyDesk } from './EmptyDesk.tsx'
import { Ideas } from './Ideas.tsx'
import { NoteTable } from './NoteTable.tsx'
import { SpotColumn } from './SpotColumn.tsx'

const MENDS_SHOWN = 2
/** What one line under the picture holds; more would take height from it. */
const MENDS_SIGNS = 56

const mendWords = (m: Mend): string => toGlyphs(`${m.from.name} to ${m.to.name}: ${m.becomes.name}, fade ${m.fade}`)

const Mends = ({ reading, desk }: { readonly reading: Reading; readonly desk: Desk }) => {
  const best = useMemo(() => mendsOf(reading, DEFAULT_WEIGHTS).slice(0, MENDS_SHOWN), [reading])
  const mends = best.map(mendWords).join('').length > MENDS_SIGNS ? best.slice(0, 1) : best
  if (mends.length === 0) return null
  const back = reverse(desk.instrument.written)
  return (
    <ul className={styles.mends} aria-label="Mends">
      <li className={styles.soft}>Mend</li>
      {mends.map((m) => (
        <li key={m.becomes.name}>
          <Button onClick={() => go({ over: transposeOverlay(m.becomes, back).name })}>{mendWords(m)}</Button>
        </li>
      ))}
    </ul>
  )
}

const titleNote = (desk: Desk): string => {
  switch (desk.current?.by) {
    case 'home':
      return 'the home scale'
    case 'idea':
      return 'kept here'
    default:
      return ''
  }
}

const Picture = ({
  place,
  desk,
  reading,
}: {
  readonly place: Place
  readonly desk: Desk
  readonly reading: Reading
}) => {
  const [chosen, setChosen] = useState<{ readonly of: Reading; readonly index: number } | null>(null)
  const [asTable, setAsTable] = useState(false)
  const index = chosen?.of === reading ? chosen.index : null
  const note = index === null ? reading.notes.indexOf(reading.worst) : index
  const shown = reading.notes[note]
  return (
    <section className={styles.picture} aria-label="Overlay">
      <header className={styles.head}>
        <h1>{toGlyphs(reading.overlay.name)}</h1>
        <span className={styles.soft}>{titleNote(desk)}</span>
        <span className={styles.buttons}>
          <Button pressed={asTable} onClick={() => setAsTable(!asTable)}>
            As a table
          </Button>
          <Button title="Enter" onClick={hearOverlay}>
            Hear
          </Button>
          <Button tone="strong" title="k" onClick={keep}>
            Keep
          </Button>
        </span>
      </header>
      {desk.overlayError && (
        <p role="alert" className={styles.wrong}>
          The address lays “{place.over}” over this chord. “{desk.overlayError.found}” is not understood there, so the
          home scale is shown.
        </p>
      )}
      <div className={styles.figure}>
        {asTable ? (
          <NoteTable reading={reading} />
        ) : (
          <>
            <p className={styles.axis} aria-hidden="true">
              how far out →
            </p>
            <Slope
              reading={reading}
              chosen={index}
              onChoose={(i) => setChosen({ of: reading, index: i })}
              onHear={hearNote}
            />
          </>
        )}
      </div>
      {shown && (
        <p className={styles.sentence} aria-live="polite">
          {toGlyphs(noteSentence(shown, reading))}
        </p>
      )}
      <Mends reading={reading} desk={desk} />
    </section>
  )
}

/** One chord, what is inside it, and one overlay over it with every note's way home. */
const DeskView = ({ place, kept, desk }: ViewProps) => {
  const { current } = desk
  if (desk.chart === null || current === null) return <EmptyDesk kept={kept} desk={desk} />
  return (
    <div className={styles.desk}>
      <SpotColumn desk={desk} current={current} />
      {current.reading ? (
        <Picture place={place} desk={desk} reading={current.reading} />
      ) : (
        <section className={styles.picture} aria-label="Overlay">
          <h1>N.C.</h1>
          <p>No chord sounds here, so there is nothing to be in or out of. Move on with → or the pedal.</p>
        </section>
      )}
      <Ideas kept={kept} desk={desk} />
    </div>
  )
}

export default DeskView
