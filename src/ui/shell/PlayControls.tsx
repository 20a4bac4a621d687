import { useStore } from '@nanostores/react'
import { feelOf } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { SettlingSlider } from '../parts/Slider.tsx'
import type { Desk } from '../stores/desk.ts'
import { $bandOpen, turnBand } from '../stores/dialogs.ts'
import { setLoop, setTempoTo } from '../stores/looping.ts'
import { type Place, TEMPO } from '../stores/place.ts'
import styles from './FootRail.module.css'

const barsText = ({ from, to }: NonNullable<Place['loop']>): string =>
  from === to ? `bar ${from}` : `bars ${from}–${to}`

/** Tempo, what is played round, and the door to the band. */
export const PlayControls = ({ place, desk }: { readonly place: Place; readonly desk: Desk }) => {
  const open = useStore($bandOpen)
  if (!desk.chart) return null
  return (
    <div className={styles.hear}>
      <SettlingSlider
        label="tempo"
        least={TEMPO.least}
        most={TEMPO.most}
        value={place.tempo ?? desk.chart.tempo}
        onSettle={setTempoTo}
      />
      <Button className={styles.band ?? ''} pressed={open} aria-expanded={open} title="v" onClick={turnBand}>
        <span>{place.feel ?? feelOf(desk.chart)}</span>
        <span className={styles.soft}>
          {place.loop ? barsText(place.loop) : place.view === 'line' ? 'the line' : 'whole form'}
        </span>
      </Button>
      {place.loop && (
        <Button tone="quiet" aria-label="Play the whole form again" title="No loop" onClick={() => setLoop(null)}>
          ×
        </Button>
      )}
    </div>
  )
}
