import { useState } from 'react'
import { noteSentence, type Reading, toGlyphs } from '../../../core/index.ts'
import { Slope } from '../../figures/Slope.tsx'
import type { FigureId } from '../../state/address/parts/desk.ts'
import { hearNote } from '../../state/sound/overlay-hearing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { NoteTable } from './NoteTable.tsx'
import styles from './Picture.module.css'
import { Played } from './Played.tsx'
import { usePlayed } from './use-played.ts'

interface Props {
  readonly figure: FigureId
  readonly reading: Reading
  readonly openChart: OpenChart
  /** Where room is short, a sentence only for the note in focus. */
  readonly brief?: boolean
}

const SlopePlace = ({ reading, openChart, brief }: Omit<Required<Props>, 'figure'>) => {
  const played = usePlayed(reading, openChart)
  const [chosen, setChosen] = useState<{ readonly of: Reading; readonly index: number } | null>(null)
  const index = chosen?.of === reading ? chosen.index : null
  const shown = reading.notes[index ?? reading.notes.indexOf(reading.worst)]
  return (
    <>
      <div className={styles.figure}>
        <p className={styles.axis} aria-hidden="true">
          how far out →
        </p>
        <Slope
          reading={reading}
          chosen={index}
          onChoose={(i) => setChosen({ of: reading, index: i })}
          onHear={hearNote}
          played={played}
        />
      </div>
      {shown && !(brief && index === null) && (
        <p className={styles.sentence} aria-live="polite">
          {toGlyphs(noteSentence(shown, reading))}
        </p>
      )}
    </>
  )
}

/** The pictures of one overlay that take turns: slope, keyboard, fretboard, staff; and the same as a table. */
export const TurnTaking = ({ figure, reading, openChart, brief = false }: Props) => {
  switch (figure) {
    case 'table':
      return <NoteTable reading={reading} />
    case 'keyboard':
    case 'fretboard':
    case 'staff':
      return <Played figure={figure} reading={reading} openChart={openChart} />
    default:
      return <SlopePlace reading={reading} openChart={openChart} brief={brief} />
  }
}
