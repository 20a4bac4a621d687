import { useMemo } from 'react'
import { type Reading, toGlyphs, triadOf } from '../../core/index.ts'
import { FILL_OF } from './NoteTab.tsx'
import type { StaffClef } from './notation.ts'
import { readingOf, scaleUp } from './register.ts'
import styles from './Sheet.module.css'
import { Staff, type StaffEntry } from './Staff.tsx'

interface ItemProps {
  readonly reading: Reading
  readonly clef: StaffClef
}

const Item = ({ reading, clef }: ItemProps) => {
  const { overlay, place } = reading
  const entries = useMemo(
    () =>
      scaleUp(overlay, clef).map((p): StaffEntry => {
        const note = readingOf(reading.notes, p)
        return { pitches: [p], ...(note ? { note, fill: FILL_OF[triadOf(reading, note) ?? 'first'] } : {}) }
      }),
    [reading, overlay, clef],
  )
  return (
    <li className={styles.item}>
      <p className={styles.head}>
        <strong>{toGlyphs(overlay.name)}</strong> over {toGlyphs(place.chord.symbol)}
        {place.next ? ` to ${toGlyphs(place.next.symbol)}` : ''}
        <span>
          fade {reading.fade}, lands {reading.landing ?? '–'}
        </span>
      </p>
      <Staff entries={entries} clef={clef} name={toGlyphs(overlay.name)} scale={0.68} small />
    </li>
  )
}

interface Props {
  readonly title: string
  readonly badge: string
  readonly readings: readonly Reading[]
  readonly clef: StaffClef
}

/** One page of overlays, each on its staff over its tabs; light and grey-safe, whatever the screen looks like. */
export const Sheet = ({ title, badge, readings, clef }: Props) => (
  <div className={styles.sheet} data-sheet>
    <header className={styles.top}>
      <h1>{title}</h1>
      <p>{badge}</p>
    </header>
    <ul className={styles.items}>
      {readings.map((r) => (
        <Item key={`${r.overlay.name} ${r.place.chord.symbol}`} reading={r} clef={clef} />
      ))}
    </ul>
    <p className={styles.foot}>
      Flat chord tone, arched extension, slanted altered, hooked suspension, torn outside. Of a pair the first triad is
      solid, the second hollow. Warm up, rest, stop at pain; ask a teacher.
    </p>
  </div>
)
