import { type NoteReading, toGlyphs } from '../../core/index.ts'
import styles from './NoteTab.module.css'
import { tabLook, tabPath } from './tab-shape.ts'

/** How a tab is filled: of a pair, the first triad solid, the second hollow, a shared note half. */
export type Fill = 'solid' | 'hollow' | 'half'

export const FILL_OF = { first: 'solid', second: 'hollow', both: 'half' } as const

interface Props {
  readonly note: NoteReading
  readonly x: number
  readonly y: number
  readonly w: number
  readonly h: number
  readonly fill?: Fill
  readonly lifted?: boolean
  readonly type: { readonly name: number; readonly degree: number }
}

/** A note's tab: outline tells its role, hue its fade; its name above its degree. Stands inside a group that sets the hue. */
export const NoteTab = ({ note, x, y, w, h, fill = 'solid', lifted = false, type }: Props) => {
  const look = tabLook(note)
  const middle = x + w / 2
  return (
    <>
      <path className={fill === 'solid' ? styles.tab : styles.hollow} d={tabPath(look, x, y, w, h)} />
      {fill === 'half' && <rect className={styles.lower} x={x} y={y + h * 0.6} width={w} height={h * 0.4} />}
      {look.doubled && (
        <path
          className={fill === 'solid' ? styles.double : styles.doubleHollow}
          d={`M${x + 4},${y + 5} H${x + w - 4}`}
        />
      )}
      {lifted && <rect className={styles.focus} x={x - 4} y={y - 4} width={w + 8} height={h + 8} rx={3} />}
      <text
        className={fill === 'solid' ? styles.text : styles.inkText}
        fontSize={type.name}
        x={middle}
        y={y + h * 0.53}
      >
        {toGlyphs(note.note.name)}
      </text>
      <text
        className={fill === 'hollow' ? styles.inkText : styles.text}
        fontSize={type.degree}
        x={middle}
        y={y + h * 0.91}
      >
        {toGlyphs(note.degree)}
      </text>
    </>
  )
}
