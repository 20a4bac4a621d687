import { type HeardNote, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './PlayedTab.module.css'
import { ROLE_SHAPES, tabPath } from './tab-shape.ts'

/** The note that was played last; `ended` once it does not sound any more. */
export interface PlayedNow {
  readonly note: HeardNote
  readonly ended: boolean
}

interface Props {
  readonly played: PlayedNow
  readonly x: number
  readonly y: number
  readonly w: number
  readonly h: number
  /** Where the home line lies under it. */
  readonly home: number
}

/** A ring stands so far round the tab, so that it is told from those that lie there. */
const RING = 5

/** A played note as a tab over the home line: its outline tells its role, its hue the fade, and its degree stands in it. */
export const PlayedTab = ({ played: { note, ended }, x, y, w, h, home }: Props) => {
  if (!note.role) return null
  const look = { shape: ROLE_SHAPES[note.role], doubled: note.guide, bitten: note.rub, lean: 'right' as const }
  return (
    <g className={`${hueClass(note.fade)} ${ended ? styles.ended : ''}`} data-played={note.degree}>
      <path className={styles.stem} d={`M${x + w / 2},${y + h} V${home}`} />
      <path className={styles.ring} d={tabPath(look, x - RING, y - RING, w + 2 * RING, h + 2 * RING)} />
      <path className={styles.tab} d={tabPath(look, x, y, w, h)} />
      {look.doubled && <path className={styles.double} d={`M${x + 4},${y + 5} H${x + w - 4}`} />}
      <text className={styles.degree} fontSize={Math.min(26, w * 0.46)} x={x + w / 2} y={y + h * 0.7}>
        {toGlyphs(note.degree ?? '')}
      </text>
    </g>
  )
}
