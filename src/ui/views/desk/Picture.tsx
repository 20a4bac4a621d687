import { useMemo } from 'react'
import { type Mend, mendsOf, type Reading, reverse, toGlyphs, transposeOverlay } from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { Button } from '../../parts/Button.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { keep } from '../../state/desk/keeping.ts'
import { toggleTray } from '../../state/desk/tray.ts'
import { openPrinting } from '../../state/page/dialogs.ts'
import { MENDS_ID } from '../../state/page/focus.ts'
import { hearOverlay } from '../../state/sound/overlay-hearing.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { FigureTabs } from '../overlay/FigureTabs.tsx'
import { LayButtons } from '../overlay/LayButtons.tsx'
import styles from '../overlay/Picture.module.css'
import { PractiseButton } from '../overlay/PractiseButton.tsx'
import { TurnTaking } from '../overlay/TurnTaking.tsx'
import { ChordPanel } from './ChordPanel.tsx'
import { ComparePanel } from './ComparePanel.tsx'
import { ElsewherePanel } from './ElsewherePanel.tsx'
import { WhyPanel } from './WhyPanel.tsx'

const MENDS_SHOWN = 2
/** What one line under the picture holds; more would take height from it. */
const MENDS_SIGNS = 56

const mendWords = (m: Mend): string => toGlyphs(`${m.from.name} to ${m.to.name}: ${m.becomes.name}, fade ${m.fade}`)

const Mends = ({ reading, openChart }: { readonly reading: Reading; readonly openChart: OpenChart }) => {
  const best = useMemo(
    () => mendsOf(reading, openChart.settings.weights).slice(0, MENDS_SHOWN),
    [reading, openChart.settings.weights],
  )
  const mends = best.map(mendWords).join('').length > MENDS_SIGNS ? best.slice(0, 1) : best
  if (mends.length === 0) return <div className={styles.mends} />
  const back = reverse(openChart.instrument.written)
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

const TITLE_NOTES = { home: 'the home scale', route: 'lies here', overlay: 'tried here' } as const

interface Props {
  readonly address: Address
  readonly openChart: OpenChart
  readonly reading: Reading
}

const Figure = ({ address, openChart, reading }: Props) => {
  switch (address.figure) {
    case 'why':
      return <WhyPanel reading={reading} weights={openChart.settings.weights} />
    case 'compare':
      return <ComparePanel address={address} openChart={openChart} />
    case 'elsewhere':
      return <ElsewherePanel openChart={openChart} overlay={reading.overlay} />
    case 'chord':
      return <ChordPanel openChart={openChart} reading={reading} />
    default:
      return <TurnTaking figure={address.figure} reading={reading} openChart={openChart} />
  }
}

/** The overlay in view: its name, what to do with it, and one of its pictures. */
export const Picture = ({ address, openChart, reading }: Props) => {
  const inTray = openChart.concert !== null && address.tray.includes(openChart.concert.overlay.name)
  return (
    <section className={styles.picture} aria-label="Overlay">
      <header className={styles.head}>
        {address.figure !== 'slope' && <Multiple reading={reading} />}
        <h1>{toGlyphs(reading.overlay.name)}</h1>
        <span className={styles.soft}>{TITLE_NOTES[openChart.current?.by ?? 'home']}</span>
        <span className={styles.buttons}>
          <Button title="Enter" onClick={hearOverlay}>
            Hear
          </Button>
          <Button pressed={inTray} title="t" onClick={toggleTray}>
            Tray
          </Button>
          <Button onClick={openPrinting}>Print</Button>
          <Button title="k: keep it as an idea, without a place" onClick={keep}>
            Keep
          </Button>
          <PractiseButton />
          <LayButtons openChart={openChart} />
        </span>
      </header>
      <FigureTabs now={address.figure} inTray={address.tray.length} />
      {openChart.overlayError && (
        <p role="alert" className={styles.wrong}>
          The address lays “{address.over}” over this chord. “{openChart.overlayError.found}” is not understood there,
          so the home scale is shown.
        </p>
      )}
      <Figure address={address} openChart={openChart} reading={reading} />
      <Mends reading={reading} openChart={openChart} />
    </section>
  )
}
