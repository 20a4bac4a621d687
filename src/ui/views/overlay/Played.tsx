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
import type { Desk } from '../../stores/desk.ts'
import { $picking, pressPitch, turnPicking } from '../../stores/picking.ts'
import type { FigureId } from '../../stores/place.ts'
import type { Clef } from '../../stores/settings.ts'
import styles from './Picture.module.css'

interface Props {
  readonly reading: Reading
  readonly desk: Desk
}

const Neck = ({ reading, desk }: Props) => {
  const [position, setPosition] = useState<Position>(POSITIONS[0] ?? WHOLE_NECK)
  const picking = useStore($picking)
  const { tuning, leftHanded } = desk.settings
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

const Keys = ({ reading, desk }: Props) => {
  const picking = useStore($picking)
  return (
    <>
      <Keyboard reading={reading} low={CLEF_C[desk.settings.clef]} octaves={2} onPress={pressPitch} />
      <Controls picking={picking} />
    </>
  )
}

const Controls = ({ picking, children }: { readonly picking: boolean; readonly children?: React.ReactNode }) => (
  <div className={styles.controls}>
    <Button pressed={picking} title="n" onClick={turnPicking}>
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

const Written = ({ reading, desk }: Props) => {
  const picking = useStore($picking)
  const { clef } = desk.settings
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
        <span className={styles.soft}>{toGlyphs(`${clef} clef, ${desk.instrument.badge}`)}</span>
      </Controls>
    </>
  )
}

/** The overlay where it is played: keyboard, fretboard or staff. */
export const Played = ({ figure, reading, desk }: Props & { readonly figure: FigureId }) => (
  <div className={styles.played}>
    {figure === 'keyboard' ? (
      <Keys reading={reading} desk={desk} />
    ) : figure === 'fretboard' ? (
      <Neck reading={reading} desk={desk} />
    ) : (
      <Written reading={reading} desk={desk} />
    )}
  </div>
)
