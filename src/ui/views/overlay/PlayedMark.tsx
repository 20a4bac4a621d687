import { useStore } from '@nanostores/react'
import { PlayedTab } from '../../figures/PlayedTab.tsx'
import { FIRST } from '../../state/page/first.ts'
import { $playedNow } from '../../state/sound/now-played.ts'
import styles from './PlayedMark.module.css'

const SIZE = { width: 132, height: 168, home: 150, tabW: 60, tabH: 44 } as const

/** The note that was played last, at its height above the home line, over the chord that sounds. */
export const PlayedMark = () => {
  const played = useStore($playedNow, FIRST)
  const { width, height, home, tabW, tabH } = SIZE
  const y = home - tabH - ((played?.note.fade ?? 0) / 100) * (home - tabH - 6)
  return (
    <svg className={styles.mark} viewBox={`0 0 ${width} ${height}`} aria-hidden="true">
      <path className={styles.home} d={`M0,${home} H${width}`} />
      {played && <PlayedTab played={played} x={(width - tabW) / 2} y={y} w={tabW} h={tabH} home={home} />}
    </svg>
  )
}
