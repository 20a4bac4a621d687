import { useStore } from '@nanostores/react'
import { type MouseEvent, useState } from 'react'
import { beatsOf, noteSentence, type Reading, toGlyphs } from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { Slope } from '../../figures/Slope.tsx'
import { beatsWords, beatText } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import type { FigureId } from '../../state/address/parts/desk.ts'
import { FIRST } from '../../state/page/first.ts'
import { hearNote } from '../../state/sound/overlay-hearing.ts'
import { $playing } from '../../state/sound/playing.ts'
import { $recording } from '../../state/sound/recording.ts'
import { moveChord } from '../../state/tune/moving.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { PlayedMark } from '../overlay/PlayedMark.tsx'
import { TurnTaking } from '../overlay/TurnTaking.tsx'
import { usePlayed } from '../overlay/use-played.ts'
import type { ViewProps } from '../view.ts'
import { BeatsLeft } from './BeatsLeft.tsx'
import styles from './StandView.module.css'

/** When the next chord comes, in words. */
const change = (openChart: OpenChart): string => {
  const { current, spots, chart } = openChart
  if (!current?.next || !chart) return 'no next chord'
  const after = spots[current.index + 1] ?? spots[0]
  const length = beatsWords(beatsOf(current.spot))
  const where = after ? `bar ${after.spot.bar}${after.beat > 1 ? `, beat ${beatText(after.beat)}` : ''}` : ''
  return `after ${length}, ${where}`
}

/** The next chord, and what is laid there. */
const Next = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { current, spots } = openChart
  const playing = useStore($playing, FIRST) !== null
  const after = current && (spots[current.index + 1] ?? (current.next ? spots[0] : undefined))
  const laid = after && after.by !== 'home' ? after.reading : null
  return (
    <div className={styles.next}>
      <p>
        then <strong>{after ? toGlyphs(after.spot.chord.symbol) : '–'}</strong>
        {playing && <BeatsLeft openChart={openChart} />}
      </p>
      {laid && (
        <p className={styles.laid}>
          <Multiple reading={laid} /> {toGlyphs(laid.overlay.name)}
        </p>
      )}
      <p className={styles.when}>{change(openChart)}</p>
    </div>
  )
}

const PLAYED: readonly FigureId[] = ['keyboard', 'fretboard', 'staff']

const Figure = ({
  reading,
  openChart,
  figure,
}: {
  readonly reading: Reading
  readonly openChart: OpenChart
  readonly figure: FigureId
}) => {
  const [chosen, setChosen] = useState<{ readonly of: Reading; readonly index: number } | null>(null)
  const index = chosen?.of === reading ? chosen.index : null
  const note = index === null ? undefined : reading.notes[index]
  const played = usePlayed(reading, openChart)
  if (PLAYED.includes(figure)) return <TurnTaking figure={figure} reading={reading} openChart={openChart} />
  return (
    <>
      <Slope
        reading={reading}
        chosen={index}
        onChoose={(i) => setChosen({ of: reading, index: i })}
        onHear={hearNote}
        scale={1.75}
        played={played}
      />
      {note && <p className={styles.sentence}>{toGlyphs(noteSentence(note, reading))}</p>}
    </>
  )
}

/** A tap beside what can be pressed: on the right half on, on the left half back. */
const tap = (e: MouseEvent<HTMLElement>): void => {
  if (e.target instanceof Element && e.target.closest('button, select, input, a, [role="button"]')) return
  const { left, width } = e.currentTarget.getBoundingClientRect()
  moveChord(e.clientX < left + width / 2 ? -1 : 1)
}

/** Chord, what is laid, its picture, then the next chord and what is laid there: to be read from two metres. */
const StandView = ({ address, openChart }: ViewProps) => {
  const reading = openChart.current?.reading
  const isPlayedIn = useStore($recording, FIRST) !== null
  if (!reading)
    return (
      <div className={styles.empty}>
        <h1>{openChart.current?.spot.chord.symbol ?? 'Nothing on the stand'}</h1>
        <p>{openChart.current ? 'No chord sounds here.' : 'Open a chart on the Desk first.'}</p>
        <Button onClick={() => go({ view: 'desk' })}>To the Desk</Button>
      </div>
    )
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: a tap is a second way; arrows, the pedal and the rail do the same
    // biome-ignore lint/a11y/useKeyWithClickEvents: the page's own arrow keys do the same
    <div className={styles.stand} onClick={tap}>
      <section className={styles.facts} aria-label="Chord" aria-live="polite">
        <h1 className={styles.chord}>{toGlyphs(reading.place.chord.symbol)}</h1>
        <p className={styles.overlay}>{toGlyphs(reading.overlay.name)}</p>
        {openChart.inHand && <p className={styles.route}>route: {toGlyphs(openChart.inHand)}</p>}
        <p className={styles.figures}>
          <span>
            fade <strong>{reading.fade}</strong>
          </span>{' '}
          <span>
            lands <strong>{reading.landing ?? '–'}</strong>
          </span>
        </p>
        <Next openChart={openChart} />
        {isPlayedIn && <PlayedMark />}
      </section>
      <div className={styles.slope}>
        <Figure reading={reading} openChart={openChart} figure={address.figure} />
      </div>
    </div>
  )
}

export default StandView
