import { type NoteReading, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './TabRow.module.css'
import { tabLook, tabPath } from './tab-shape.ts'

const HIGH = 44
/** What a suspension's hook takes of its tab's width. */
const HOOK = 4

interface RowSizes {
  readonly step: number
  readonly tab: number
  readonly type: number
}

/** Tabs stand closer the more there are, so that type keeps its size in a narrow column. */
const sizesFor = (count: number): RowSizes =>
  count < 8
    ? { step: 38, tab: 34, type: 14.5 }
    : count < 9
      ? { step: 28, tab: 26, type: 13.4 }
      : { step: 25, tab: 24, type: 13 }

interface Props {
  readonly notes: readonly NoteReading[]
  readonly label: string
}

/** A scale in a row on the home line: its notes, each with its role's outline. */
export const TabRow = ({ notes, label }: Props) => {
  const { step, tab, type } = sizesFor(notes.length)
  const width = notes.length * step + 4
  return (
    <svg
      className={styles.row}
      viewBox={`0 0 ${width} ${HIGH + 4}`}
      width={width}
      role="img"
      aria-label={`${label}: ${notes.map((n) => `${toGlyphs(n.note.name)} ${toGlyphs(n.degree)}`).join(', ')}`}
    >
      {notes.map((n, i) => {
        const look = tabLook(n)
        const x = i * step + 2
        const w = look.shape === 'hooked' ? tab - HOOK : tab
        return (
          <g key={n.note.name} className={hueClass(n.fade)}>
            <path className={styles.tab} d={tabPath(look, x, 2, w, HIGH)} />
            {look.doubled && <path className={styles.double} d={`M${x + 4},7 H${x + w - 4}`} />}
            <text className={styles.text} fontSize={type} x={x + w / 2} y={25}>
              {toGlyphs(n.note.name)}
            </text>
            <text className={styles.text} fontSize={type} x={x + w / 2} y={41}>
              {toGlyphs(n.degree)}
            </text>
          </g>
        )
      })}
      <line className={styles.home} x1={0} x2={width} y1={HIGH + 2.5} y2={HIGH + 2.5} />
    </svg>
  )
}
