import { type Taken, WHOLE_NECK } from '../../../core/index.ts'
import { Fretboard } from '../../figures/Fretboard.tsx'
import { Keyboard } from '../../figures/Keyboard.tsx'
import { tuningFrom } from '../../figures/neck.ts'
import { CLEF_C } from '../../figures/register.ts'
import { Button } from '../../parts/Button.tsx'
import type { Desk } from '../../stores/desk.ts'
import { playInto } from '../../stores/line-editing.ts'
import { go, LINE_SIDES, type LineSide } from '../../stores/place.ts'
import type { KeptNote, LineRow } from '../../stores/rows.ts'
import { FadePanel } from './FadePanel.tsx'
import { LiesPanel } from './LiesPanel.tsx'
import styles from './LineView.module.css'
import { NotePanel } from './NotePanel.tsx'
import { TablePanel } from './TablePanel.tsx'

export interface SideProps {
  readonly taken: Taken
  readonly row: LineRow
  readonly notes: readonly KeptNote[]
  readonly desk: Desk
  readonly current: number
}

const NAMES: Readonly<Record<LineSide, string>> = {
  note: 'Note',
  fade: 'Fade',
  table: 'Table',
  lies: 'Place',
  keys: 'Keys',
  neck: 'Neck',
}

const NOTHING = 'No chord sounds here, so there is nothing to press against.'

const KeysPanel = ({ desk }: SideProps) => {
  const reading = desk.current?.reading
  if (!reading) return <p>{NOTHING}</p>
  return (
    <Keyboard
      reading={reading}
      low={CLEF_C[desk.settings.clef]}
      octaves={2}
      onPress={(p) => playInto(p - desk.instrument.written.semitones)}
    />
  )
}

/** A fret's pitch as the reading names it, in concert: instruments that sound an octave lower keep their own frets. */
const fretInConcert = (pitch: number, semitones: number): number => pitch - (semitones % 12)

const NeckPanel = ({ desk }: SideProps) => {
  const reading = desk.current?.reading
  if (!reading) return <p>{NOTHING}</p>
  return (
    <Fretboard
      reading={reading}
      position={WHOLE_NECK}
      leftHanded={desk.settings.leftHanded}
      picking={false}
      tuning={tuningFrom(desk.settings.tuning)}
      onPress={(p) => playInto(fretInConcert(p, desk.instrument.written.semitones))}
    />
  )
}

const PANELS = {
  note: NotePanel,
  fade: FadePanel,
  table: TablePanel,
  lies: LiesPanel,
  keys: KeysPanel,
  neck: NeckPanel,
} as const

/** What stands beside the verdict, one at a time. Keys and neck write into the line. */
export const LineSides = ({ side, ...props }: SideProps & { readonly side: LineSide }) => {
  const Panel = PANELS[side]
  return (
    <section className={styles.side} aria-label={NAMES[side]}>
      <div className={styles.tabs}>
        {LINE_SIDES.map((s) => (
          <Button key={s} pressed={s === side} onClick={() => go({ lineSide: s })}>
            {NAMES[s]}
          </Button>
        ))}
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys */}
      <div className={styles.sidePanel} tabIndex={0}>
        <Panel {...props} />
      </div>
    </section>
  )
}
