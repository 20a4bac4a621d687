import { useStore } from '@nanostores/react'
import { Strip } from '../figures/Strip.tsx'
import { bootIn, type Handed, startSession, useSession } from '../state/shell/session.ts'
import { $playing, musicTick } from '../state/sound/playing.ts'
import { goToSpot } from '../state/tune/moving.ts'
import { useLive } from './live.ts'
import styles from './StripPlace.module.css'

/** The strip on top of every working screen; it keeps its shape while a chart loads and where none is open. */
export const StripPlace = ({ boot: given }: { readonly boot: Handed }) => {
  const boot = bootIn(given)
  startSession(boot)
  useLive()
  const { address, kept, openChart } = useSession(boot)
  const playing = useStore($playing)
  // The Route view is a strip itself, with what is wished and what is got.
  if (address.view === 'setup' || address.view === 'stand' || address.view === 'route') return null
  if ((kept.loading && !openChart.isSketch) || openChart.working)
    return (
      <div className={styles.blank} role="status">
        Opening the chart …
      </div>
    )
  if (openChart.chart && openChart.current)
    return (
      <Strip
        chart={openChart.chart}
        spots={openChart.spots}
        current={openChart.current.index}
        chains={openChart.chains}
        onGo={goToSpot}
        loop={address.loop}
        music={playing ? musicTick : null}
      />
    )
  return <div className={styles.blank} aria-hidden="true" />
}
