import { NoChart } from '../overlay/NoChart.tsx'
import type { ViewProps } from '../view.ts'
import styles from './DeskView.module.css'
import { Ideas } from './Ideas.tsx'
import { LayOver } from './LayOver.tsx'
import { Picture } from './Picture.tsx'
import { SchoolDialog } from './SchoolDialog.tsx'
import { SpotColumn } from './SpotColumn.tsx'

/** One chord, what is inside it, one overlay over it with every note's way home, and all that could be laid there. */
const DeskView = ({ place, kept, desk }: ViewProps) => {
  const { current } = desk
  if (desk.chart === null || current === null) return <NoChart kept={kept} desk={desk} />
  const { reading } = current
  return (
    <div className={styles.desk}>
      <SpotColumn desk={desk} current={current} />
      {reading ? (
        <Picture place={place} desk={desk} reading={reading} />
      ) : (
        <section className={styles.silent} aria-label="Overlay">
          <h1>N.C.</h1>
          <p>No chord sounds here, so there is nothing to be in or out of. Move on with → or the pedal.</p>
        </section>
      )}
      <div className={styles.lists}>
        {reading && <LayOver place={place} desk={desk} spot={reading.place} />}
        <Ideas kept={kept} desk={desk} />
      </div>
      {reading && <SchoolDialog reading={reading} weights={desk.settings.weights} />}
    </div>
  )
}

export default DeskView
