import { useStore } from '@nanostores/react'
import { useMemo, useState } from 'react'
import {
  homeOverlay,
  POSITIONS,
  type Position,
  type Reading,
  toGlyphs,
  triadOf,
  WHOLE_NECK,
} from '../../../core/index.ts'
import { Fretboard } from '../../figures/Fretboard.tsx'
import { Keyboard } from '../../figures/Keyboard.tsx'
import { FILL_OF } from '../../figures/NoteTab.tsx'
import { NECK_CHOICES, positionName, tuningFrom, tuningName } from '../../figures/neck.ts'
import { CLEF_C, readingOf, scaleUp } from '../../figures/register.ts'
import { Staff, type StaffEntry } from '../../figures/Staff.tsx'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import type { FigureId } from '../../state/address/parts/desk.ts'
import { $picking, togglePicking } from '../../state/desk/picking.ts'
import type { Clef } from '../../state/kept/settings.ts'
import { pressPitch } from '../../state/sound/pressing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './Picture.module.css'

interface Props {
  readonly reading: Reading
  readonly openChart: OpenChart
}

const Neck = ({ reading, openChart }: Props) => {
  const [position, setPosition] = useState<Position>(POSITIONS[0] ?? WHOLE_NECK)
  const picking = useStore($picking)
  const { tuning, leftHanded } = openChart.settings
  const strings = useMemo(() => tuningFrom(tuning), [tuning])
  return (
    <>
      <Fretboard {...{ reading, position, leftHanded, picking }} tuning={strings} onPress={pressPitch} />
      <Controls picking={picking}>
        <Select
          label="Position"
          labelHidden
          value={positionName(position)}
          options={NECK_CHOICES.map((p) => ({ value: positionName(p), label: positionName(p) }))}
          onPick={(v) => setPosition(NECK_CHOICES.find((p) => positionName(p) === v) ?? WHOLE_NECK)}
        />
        <span className={styles.soft}>
          {tuningName(tuning)}
          {leftHanded ? ', left-handed' : ''}
        </span>
      </Controls>
    </>
  )
}

const Keys = ({ reading, openChart }: Props) => {
  const picking = useStore($picking)
  return (
    <>
      <Keyboard reading={reading} low={CLEF_C[openChart.settings.clef]} octaves={2} onPress={pressPitch} />
      <Controls picking={picking} />
    </>
  )
}

const Controls = ({ picking, children }: { readonly picking: boolean; readonly children?: React.ReactNode }) => (
  <div className={styles.controls}>
    <Button pressed={picking} title="n" onClick={togglePicking}>
      Pick notes
    </Button>
    <span className={styles.soft}>
      {picking ? 'a press takes a note in or out' : 'a press is heard over the chord'}
    </span>
    {children}
  </div>
)

/** The middle line of each clef as steps of the scale above C0. */
const MIDDLE_LINE: Readonly<Record<Clef, number>> = { treble: 34, alto: 28, bass: 22 }
const NATURAL = [0, 2, 4, 5, 7, 9, 11]

/** The pitch on a line or space: as the home scale spells that letter, else natural. */
const pitchAt = (steps: number, clef: Clef, reading: Reading): number => {
  const place = MIDDLE_LINE[clef] + steps
  const [letter, octave] = [((place % 7) + 7) % 7, Math.floor(place / 7)]
  const alter = homeOverlay(reading.place.home.first).notes.find((n) => n.letter === letter)?.alter ?? 0
  return 12 * (octave + 1) + (NATURAL[letter] ?? 0) + alter
}

const Written = ({ reading, openChart }: Props) => {
  const picking = useStore($picking)
  const { clef } = openChart.settings
  const entries = useMemo(
    () =>
      scaleUp(reading.overlay, clef).map((p): StaffEntry => {
        const note = readingOf(reading.notes, p)
        return { pitches: [p], ...(note ? { note, fill: FILL_OF[triadOf(reading, note) ?? 'first'] } : {}) }
      }),
    [reading, clef],
  )
  return (
    <>
      <Staff
        entries={entries}
        clef={clef}
        name="Staff"
        onPress={(i) => pressPitch(entries[i]?.pitches[0]?.pitch ?? 60)}
        onLine={(steps) => pressPitch(pitchAt(steps, clef, reading))}
      />
      <Controls picking={picking}>
        <span className={styles.soft}>{toGlyphs(`${clef} clef, ${openChart.instrument.badge}`)}</span>
      </Controls>
    </>
  )
}

/** The overlay where it is played: keyboard, fretboard or staff. */
export const Played = ({ figure, reading, openChart }: Props & { readonly figure: FigureId }) => (
  <div className={styles.played}>
    {figure === 'keyboard' ? (
      <Keys reading={reading} openChart={openChart} />
    ) : figure === 'fretboard' ? (
      <Neck reading={reading} openChart={openChart} />
    ) : (
      <Written reading={reading} openChart={openChart} />
    )}
  </div>
)
