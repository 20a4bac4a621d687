import { keysFingering, type LineAnalysis, pickingOf, repeatingShape, WHOLE_NECK } from '../../../core/index.ts'
import { Fretboard } from '../../figures/Fretboard.tsx'
import { Keyboard } from '../../figures/Keyboard.tsx'
import { tuningFrom } from '../../figures/neck.ts'
import { CLEF_C } from '../../figures/register.ts'
import { howMany } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { LINE_SIDES, type LineSide } from '../../state/address/parts/line.ts'
import type { KeptNote, LineRow } from '../../state/kept/row-types.ts'
import { playInto } from '../../state/line/line-editing.ts'
import { tablatureOf } from '../../state/line/line-tab.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { FadePanel } from './FadePanel.tsx'
import styles from './LineView.module.css'
import { NotePanel } from './NotePanel.tsx'
import { PlacementPanel } from './PlacementPanel.tsx'
import { TablePanel } from './TablePanel.tsx'

export interface SideProps {
  readonly lineAnalysis: LineAnalysis
  readonly row: LineRow
  readonly notes: readonly KeptNote[]
  readonly openChart: OpenChart
  readonly current: number
}

const NAMES: Readonly<Record<LineSide, string>> = {
  note: 'Note',
  fade: 'Fade',
  table: 'Table',
  placement: 'Place',
  keys: 'Keys',
  neck: 'Neck',
}

const NOTHING = 'No chord sounds here, so there is nothing to press against.'

/** So many notes from the one in view are fingered in words. */
const FINGERED = 12

const FingersOnKeys = ({ lineAnalysis, current, openChart }: SideProps) => {
  const pitches = lineAnalysis.audit.notes
    .slice(current, current + FINGERED)
    .map((n) => n.pitch - openChart.instrument.written.semitones)
  return (
    <p>
      From this note on, right hand {keysFingering(pitches, 'right').join(' ')}; left hand{' '}
      {keysFingering(pitches, 'left').join(' ')}.
    </p>
  )
}

const Picking = ({ lineAnalysis, current, openChart }: SideProps) => {
  const { notes, timeline } = lineAnalysis.audit
  const { strokes, endsUp } = pickingOf(notes, timeline.beat)
  const shape = repeatingShape(tablatureOf(notes, openChart).frets)
  return (
    <p>
      Alternate picking from this note on:{' '}
      {strokes
        .slice(current, current + FINGERED)
        .map((s) => (s === 'down' ? '↓' : '↑'))
        .join(' ')}
      .{' '}
      {endsUp.length > 0 &&
        `${howMany(endsUp.length, 'phrase')} cannot end on a down-stroke, the first at note ${(endsUp[0] ?? 0) + 1}. `}
      {shape && `One shape of ${shape.notes} notes comes again every ${Math.abs(shape.frets)} frets.`}
    </p>
  )
}

const KeysPanel = (props: SideProps) => {
  const { openChart } = props
  const reading = openChart.current?.reading
  if (!reading) return <p>{NOTHING}</p>
  return (
    <>
      <FingersOnKeys {...props} />
      <Keyboard
        reading={reading}
        low={CLEF_C[openChart.settings.clef]}
        octaves={2}
        onPress={(p) => playInto(p - openChart.instrument.written.semitones)}
      />
    </>
  )
}

/** A fret's pitch as the reading names it, in concert: instruments that sound an octave lower keep their own frets. */
const fretInConcert = (pitch: number, semitones: number): number => pitch - (semitones % 12)

const NeckPanel = (props: SideProps) => {
  const { openChart } = props
  const reading = openChart.current?.reading
  if (!reading) return <p>{NOTHING}</p>
  return (
    <>
      <Picking {...props} />
      <Fretboard
        reading={reading}
        position={WHOLE_NECK}
        leftHanded={openChart.settings.leftHanded}
        picking={false}
        tuning={tuningFrom(openChart.settings.tuning)}
        onPress={(p) => playInto(fretInConcert(p, openChart.instrument.written.semitones))}
      />
    </>
  )
}

const PANELS = {
  note: NotePanel,
  fade: FadePanel,
  table: TablePanel,
  placement: PlacementPanel,
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
