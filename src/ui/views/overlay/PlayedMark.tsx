import { useStore } from '@nanostores/react'
import { toGlyphs } from '../../../core/index.ts'
import { hueClass } from '../../figures/hue.ts'
import { ROLE_SHAPES, tabPath } from '../../figures/tab-shape.ts'
import { FIRST } from '../../state/page/first.ts'
import { $playedNow } from '../../state/sound/now-played.ts'
import styles from './PlayedMark.module.css'

const SIZE = { width: 132, height: 168, home: 150, tabW: 60, tabH: 44 } as const

/** The note that was played last: its tab at its height above the home line, by its degree over the chord that sounds. */
export const PlayedMark = () => {
  const played = useStore($playedNow, FIRST)
  const { width, height, home, tabW, tabH } = SIZE
  const note = played?.note
  const lift = ((note?.fade ?? 0) / 100) * (home - tabH - 6)
  const [x, y] = [(width - tabW) / 2, home - tabH - lift]
  const look = note?.role
    ? { shape: ROLE_SHAPES[note.role], doubled: note.guide, bitten: note.rub, lean: 'right' as const }
    : null
  return (
    <svg
      className={`${styles.mark} ${hueClass(note?.fade ?? 0)}`}
      viewBox={`0 0 ${width} ${height}`}
      aria-hidden="true"
    >
      <path className={styles.home} d={`M0,${home} H${width}`} />
      {note && look && (
        <g className={played.ended ? styles.ended : undefined}>
          <path className={styles.stem} d={`M${width / 2},${y + tabH} V${home}`} />
          <path className={styles.tab} d={tabPath(look, x, y, tabW, tabH)} />
          {look.doubled && <path className={styles.double} d={`M${x + 4},${y + 5} H${x + tabW - 4}`} />}
          <text className={styles.degree} x={width / 2} y={y + tabH - 13}>
            {toGlyphs(note.degree ?? '')}
          </text>
        </g>
      )}
    </svg>
  )
}
