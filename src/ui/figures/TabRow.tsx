import { type NoteReading, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './TabRow.module.css'
import { tabLook, tabPath } from './tab-shape.ts'

const W = 34
const H = 44
const STEP = 38

/** A chord's own scale in a row on the home line: its notes as the chord hears them, each with its role's outline. */
export const TabRow = ({ notes, label }: { readonly notes: readonly NoteReading[]; readonly label: string }) => (
  <svg
    className={styles.row}
    viewBox={`0 0 ${notes.length * STEP + 4} ${H + 4}`}
    width={notes.length * STEP + 4}
    role="img"
    aria-label={`${label}: ${notes.map((n) => `${toGlyphs(n.heard.name)} ${toGlyphs(n.degree)}`).join(', ')}`}
  >
    {notes.map((n, i) => {
      const look = tabLook(n)
      const x = i * STEP + 2
      return (
        <g key={n.note.name} className={hueClass(n.fade)}>
          <path className={styles.tab} d={tabPath(look, x, 2, look.shape === 'hooked' ? W - 4 : W, H)} />
          {look.doubled && <path className={styles.double} d={`M${x + 4},7 H${x + W - 4}`} />}
          <text className={styles.text} x={x + (look.shape === 'hooked' ? W - 4 : W) / 2} y={25}>
            {toGlyphs(n.heard.name)}
          </text>
          <text className={styles.text} x={x + (look.shape === 'hooked' ? W - 4 : W) / 2} y={41}>
            {toGlyphs(n.degree)}
          </text>
        </g>
      )
    })}
    <line className={styles.home} x1={0} x2={notes.length * STEP + 4} y1={H + 2.5} y2={H + 2.5} />
  </svg>
)
