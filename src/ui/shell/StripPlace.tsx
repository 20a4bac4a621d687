import { useStore } from '@nanostores/react'
import { Strip } from '../figures/Strip.tsx'
import type { ViewId } from '../state/address/views.ts'
import { bootIn, type Handed, startSession, useSession } from '../state/shell/session.ts'
import { $playing, musicTick } from '../state/sound/playing.ts'
import { goToSpot } from '../state/tune/moving.ts'
import { useLive } from './live.ts'
import styles from './StripPlace.module.css'

/** Views that need its room: of a route it is the view itself, and practice has bands of its own. */
const WITHOUT: readonly ViewId[] = ['setup', 'stand', 'route', 'practice', 'log', 'player']

/** The strip on top of every working screen; it keeps its shape while a chart loads and where none is open. */
export const StripPlace = ({ boot: given }: { readonly boot: Handed }) => {
  const boot = bootIn(given)
  startSession(boot)
  useLive()
  const { address, kept, openChart } = useSession(boot)
  const playing = useStore($playing)
  if (WITHOUT.includes(address.view)) return null
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
