import { useState } from 'react'
import type { Reading } from '../../../core/index.ts'
import { NoChart } from '../overlay/NoChart.tsx'
import type { ViewProps } from '../view.ts'
import styles from './DeskView.module.css'
import { Ideas } from './Ideas.tsx'
import { LayOver } from './LayOver.tsx'
import { Picture } from './Picture.tsx'
import { SchoolDialog } from './SchoolDialog.tsx'
import { SpotColumn } from './SpotColumn.tsx'

/** What could be laid here, and what was kept; where there is no room for both, one at a time. */
const Lists = ({ address, kept, openChart, reading }: ViewProps & { readonly reading: Reading | null }) => {
  const [ideasFirst, setIdeasFirst] = useState(reading === null)
  const turn = () => setIdeasFirst(!ideasFirst)
  return (
    <div className={styles.lists} data-first={ideasFirst ? 'ideas' : 'over'}>
      {reading && (
        <LayOver
          address={address}
          openChart={openChart}
          spot={reading.place}
          ideas={kept.ideas.length}
          onIdeas={turn}
        />
      )}
      <Ideas kept={kept} openChart={openChart} onOver={reading ? turn : null} />
    </div>
  )
}

/** One chord, what is inside it, one overlay over it with every note's way home, and all that could be laid there. */
const DeskView = ({ address, kept, openChart }: ViewProps) => {
  const { current } = openChart
  if (openChart.chart === null || current === null) return <NoChart kept={kept} openChart={openChart} />
  const { reading } = current
  return (
    <div className={styles.desk}>
      <SpotColumn openChart={openChart} current={current} />
      {reading ? (
        <Picture address={address} openChart={openChart} reading={reading} />
      ) : (
        <section className={styles.silent} aria-label="Overlay">
          <h1>{current.spot.chord.symbol}</h1>
          <p>
            {current.spot.chord.symbol === '?' ? 'Which chord sounds here is not known' : 'No chord sounds here'}, so
            there is nothing to be in or out of. Move on with → or the pedal.
          </p>
        </section>
      )}
      <Lists address={address} kept={kept} openChart={openChart} reading={reading} />
      {reading && <SchoolDialog reading={reading} weights={openChart.settings.weights} />}
    </div>
  )
}

export default DeskView
