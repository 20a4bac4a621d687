import { type Joint, type Overlay, toGlyphs } from '../../core/index.ts'
import { layoutKeyboard } from './keyboard-layout.ts'
import styles from './SeamKeys.module.css'

const WIDTH = 420
const HEIGHT = 128
const TAB = { w: 26, h: 25 }
const ROWS = { leaving: 8, arriving: 78 } as const

interface Props {
  readonly from: Overlay
  readonly to: Overlay
  readonly joint: Joint
}

/** One octave of keys: above, the notes one leaves, solid; below, those one arrives on, hollow; between, what moves. */
export const SeamKeys = ({ from, to, joint }: Props) => {
  const keys = layoutKeyboard(60, 1, WIDTH, HEIGHT).filter((k) => k.pitch < 72)
  const middle = (pc: number): number => {
    const key = keys.find((k) => k.pc === pc)
    return key ? key.x + key.w / 2 : 0
  }
  const row = (overlay: Overlay, y: number, look: string | undefined) =>
    overlay.notes.map((n) => (
      <g key={n.name}>
        <rect className={look} x={middle(n.pc) - TAB.w / 2} y={y} width={TAB.w} height={TAB.h} rx={3} />
        <text className={look} x={middle(n.pc)} y={y + 19}>
          {toGlyphs(n.name)}
        </text>
      </g>
    ))
  const line = (a: number, b: number): string => {
    const [x, to] = [middle(a), middle(b)]
    // A half step over the octave leaves the picture at its side.
    const end = Math.abs(to - x) > WIDTH / 2 ? (to > x ? x - TAB.w : x + TAB.w) : to
    return `M${x},${ROWS.leaving + TAB.h} L${end},${ROWS.arriving}`
  }
  const words = `Leaving ${from.notes.map((n) => toGlyphs(n.name)).join(' ')}, arriving ${to.notes.map((n) => toGlyphs(n.name)).join(' ')}`
  return (
    <svg className={styles.keys} viewBox={`-2 -2 ${WIDTH} ${HEIGHT + 4}`} role="img" aria-label={words}>
      {keys.map((k) => (
        <rect
          key={k.pitch}
          className={k.black ? styles.black : styles.white}
          x={k.x}
          y={0}
          width={k.w}
          height={k.h}
          rx={3}
        />
      ))}
      {joint.common.map((pc) => (
        <path key={pc} className={styles.held} d={line(pc, pc)} />
      ))}
      {joint.halfSteps.map(([a, b]) => (
        <path key={`${a} ${b}`} className={styles.half} d={line(a, b)} />
      ))}
      {row(from, ROWS.leaving, styles.leaving)}
      {row(to, ROWS.arriving, styles.arriving)}
    </svg>
  )
}
