import { useMemo } from 'react'
import { type Mend, mendsOf, type Reading, reverse, toGlyphs, transposeOverlay } from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { Button } from '../../parts/Button.tsx'
import { hearOverlay, keep } from '../../stores/actions.ts'
import type { Desk } from '../../stores/desk.ts'
import { openPrinting } from '../../stores/dialogs.ts'
import { MENDS_ID } from '../../stores/focus.ts'
import { go, type Place } from '../../stores/place.ts'
import { turnTray } from '../../stores/tray.ts'
import { FigureTabs } from '../overlay/FigureTabs.tsx'
import styles from '../overlay/Picture.module.css'
import { TurnTaking } from '../overlay/TurnTaking.tsx'
import { ChordPanel } from './ChordPanel.tsx'
import { ComparePanel } from './ComparePanel.tsx'
import { ElsewherePanel } from './ElsewherePanel.tsx'
import { WhyPanel } from './WhyPanel.tsx'

const MENDS_SHOWN = 2
/** What one line under the picture holds; more would take height from it. */
const MENDS_SIGNS = 56

const mendWords = (m: Mend): string => toGlyphs(`${m.from.name} to ${m.to.name}: ${m.becomes.name}, fade ${m.fade}`)

const Mends = ({ reading, desk }: { readonly reading: Reading; readonly desk: Desk }) => {
  const best = useMemo(
    () => mendsOf(reading, desk.settings.weights).slice(0, MENDS_SHOWN),
    [reading, desk.settings.weights],
  )
  const mends = best.map(mendWords).join('').length > MENDS_SIGNS ? best.slice(0, 1) : best
  if (mends.length === 0) return null
  const back = reverse(desk.instrument.written)
  return (
    <ul id={MENDS_ID} className={styles.mends} aria-label="Mends">
      <li className={styles.soft}>Mend</li>
      {mends.map((m) => (
        <li key={m.becomes.name}>
          <Button title="m" onClick={() => go({ over: transposeOverlay(m.becomes, back).name })}>
            {mendWords(m)}
          </Button>
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

interface Props {
  readonly place: Place
  readonly desk: Desk
  readonly reading: Reading
}

const Figure = ({ place, desk, reading }: Props) => {
  switch (place.figure) {
    case 'why':
      return <WhyPanel reading={reading} weights={desk.settings.weights} />
    case 'compare':
      return <ComparePanel place={place} desk={desk} />
    case 'elsewhere':
      return <ElsewherePanel desk={desk} overlay={reading.overlay} />
    case 'chord':
      return <ChordPanel desk={desk} reading={reading} />
    default:
      return <TurnTaking figure={place.figure} reading={reading} desk={desk} />
  }
}

/** The overlay in view: its name, what to do with it, and one of its pictures. */
export const Picture = ({ place, desk, reading }: Props) => {
  const inTray = desk.concert !== null && place.tray.includes(desk.concert.overlay.name)
  return (
    <section className={styles.picture} aria-label="Overlay">
      <header className={styles.head}>
        {place.figure !== 'slope' && <Multiple reading={reading} />}
        <h1>{toGlyphs(reading.overlay.name)}</h1>
        <span className={styles.soft}>{titleNote(desk)}</span>
        <span className={styles.buttons}>
          <Button title="Enter" onClick={hearOverlay}>
            Hear
          </Button>
          <Button pressed={inTray} title="t" onClick={turnTray}>
            Tray
          </Button>
          <Button onClick={openPrinting}>Print</Button>
          <Button tone="strong" title="k" onClick={keep}>
            Keep
          </Button>
        </span>
      </header>
      <FigureTabs now={place.figure} inTray={place.tray.length} />
      {desk.overlayError && (
        <p role="alert" className={styles.wrong}>
          The address lays “{place.over}” over this chord. “{desk.overlayError.found}” is not understood there, so the
          home scale is shown.
        </p>
      )}
      <Figure place={place} desk={desk} reading={reading} />
      <Mends reading={reading} desk={desk} />
    </section>
  )
}
