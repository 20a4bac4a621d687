import { useStore } from '@nanostores/react'
import { feelOf } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { SettlingSlider } from '../parts/Slider.tsx'
import type { Address } from '../state/address/address.ts'
import { TEMPO } from '../state/address/parts/band.ts'
import { $bandOpen, toggleBand } from '../state/page/dialogs.ts'
import { setLoop, setTempoTo } from '../state/sound/looping.ts'
import type { OpenChart } from '../state/tune/open-chart.ts'
import styles from './FootRail.module.css'

const barsText = ({ from, to }: NonNullable<Address['loop']>): string =>
  from === to ? `bar ${from}` : `bars ${from}–${to}`

/** Tempo, what is played round, and the door to the band. */
export const PlayControls = ({ address, openChart }: { readonly address: Address; readonly openChart: OpenChart }) => {
  const open = useStore($bandOpen)
  if (!openChart.chart) return null
  return (
    <div className={styles.hear}>
      <SettlingSlider
        label="tempo"
        least={TEMPO.least}
        most={TEMPO.most}
        value={address.tempo ?? openChart.chart.tempo}
        onSettle={setTempoTo}
      />
      <Button className={styles.band ?? ''} pressed={open} aria-expanded={open} title="v" onClick={toggleBand}>
        <span>{address.feel ?? feelOf(openChart.chart)}</span>
        <span className={styles.soft}>
          {address.loop ? barsText(address.loop) : address.view === 'line' ? 'the line' : 'whole form'}
        </span>
      </Button>
      {address.loop && (
        <Button tone="quiet" aria-label="Play the whole form again" title="No loop" onClick={() => setLoop(null)}>
          ×
        </Button>
      )}
    </div>
  )
}
