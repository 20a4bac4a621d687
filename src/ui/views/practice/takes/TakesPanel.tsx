import { useStore } from '@nanostores/react'
import { FIRST } from '../../../state/page/first.ts'
import { $recording } from '../../../state/sound/recording.ts'
import { useTakes } from '../../overlay/use-take.ts'
import type { ViewProps } from '../../view.ts'
import { RecordBar } from './RecordBar.tsx'
import { TakeList } from './TakeList.tsx'
import styles from './Takes.module.css'
import { TakeView } from './TakeView.tsx'

/** Playing in, and what was played: all takes, one that is read, or two beside each other. */
export const TakesPanel = ({ address, kept, openChart }: ViewProps) => {
  const recording = useStore($recording, FIRST)
  useTakes()
  return (
    <div className={styles.takes}>
      {(recording || !address.take) && (
        <RecordBar openChart={openChart} chartId={kept.chart?.id ?? null} sketch={address.sketch} />
      )}
      {!recording &&
        (address.take ? (
          <TakeView id={address.take} beside={address.otherTake} openChart={openChart} />
        ) : (
          <TakeList kept={kept} />
        ))}
    </div>
  )
}
