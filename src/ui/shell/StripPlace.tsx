import { useStore } from '@nanostores/react'
import { Strip } from '../figures/Strip.tsx'
import { goToSpot } from '../stores/actions.ts'
import { deskAt } from '../stores/desk.ts'
import { $playing, musicTick } from '../stores/playing.ts'
import { bootIn, type Handed, startSession, useKept, usePlace } from '../stores/session.ts'
import { useLive } from './live.ts'
import styles from './StripPlace.module.css'

/** The strip on top of every working screen; it keeps its shape while a chart loads and where none is open. */
export const StripPlace = ({ boot: given }: { readonly boot: Handed }) => {
  const boot = bootIn(given)
  startSession(boot)
  useLive()
  const place = usePlace(boot)
  const kept = useKept(boot)
  const desk = deskAt(place, kept)
  const playing = useStore($playing)
  // The Route view is a strip itself, with what is wished and what is got.
  if (place.view === 'setup' || place.view === 'stand' || place.view === 'route') return null
  if ((kept.loading && !desk.isSketch) || desk.working)
    return (
      <div className={styles.blank} role="status">
        Opening the chart …
      </div>
    )
  if (desk.chart && desk.current)
    return (
      <Strip
        chart={desk.chart}
        spots={desk.spots}
        current={desk.current.index}
        chains={desk.chains}
        onGo={goToSpot}
        loop={place.loop}
        music={playing ? musicTick : null}
      />
    )
  return <div className={styles.blank} aria-hidden="true" />
}
