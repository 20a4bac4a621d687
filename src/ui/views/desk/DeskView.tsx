import { NoChart } from '../overlay/NoChart.tsx'
import type { ViewProps } from '../view.ts'
import styles from './DeskView.module.css'
import { Ideas } from './Ideas.tsx'
import { LayOver } from './LayOver.tsx'
import { Picture } from './Picture.tsx'
import { SchoolDialog } from './SchoolDialog.tsx'
import { SpotColumn } from './SpotColumn.tsx'

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
          <h1>N.C.</h1>
          <p>No chord sounds here, so there is nothing to be in or out of. Move on with → or the pedal.</p>
        </section>
      )}
      <div className={styles.lists}>
        {reading && <LayOver address={address} openChart={openChart} spot={reading.place} />}
        <Ideas kept={kept} openChart={openChart} />
      </div>
      {reading && <SchoolDialog reading={reading} weights={openChart.settings.weights} />}
    </div>
  )
}

export default DeskView
