import { pitchClass, type Reading, triadOf } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './Multiple.module.css'
import { tabLook, tabPath } from './tab-shape.ts'

const BAR = 6
const HEIGHT = 30
const LEAST = 5

/** Size of the drawing, in its own units. */
export const MULTIPLE = { w: 12 * BAR + 2, h: HEIGHT + 2 } as const

/** The drawing by itself, to stand in a larger one. */
export const MultipleMarks = ({ reading }: { readonly reading: Reading }) => (
  <>
    {reading.notes.map((n, i) => {
      const up = pitchClass(n.note.pc - reading.place.chord.root.pc)
      const bottom = HEIGHT - (n.fade / 100) * (HEIGHT - LEAST - 7)
      return (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: the next overlay's notes take these marks over, which draws sooner
          key={i}
          className={`${triadOf(reading, n) === 'second' ? styles.hollow : styles.bar} ${hueClass(n.fade)}`}
          d={tabPath(tabLook(n), up * BAR + 1, bottom - LEAST - 3, BAR - 1, LEAST + 3)}
        />
      )
    })}
    <line className={styles.home} x1={0} x2={MULTIPLE.w} y1={HEIGHT + 1} y2={HEIGHT + 1} />
  </>
)

/** A slope view at a glance: twelve places on a home line, each note at its height with its role's outline. */
export const Multiple = ({ reading }: { readonly reading: Reading }) => (
  <svg className={styles.multiple} viewBox={`0 0 ${MULTIPLE.w} ${MULTIPLE.h}`} aria-hidden="true">
    <MultipleMarks reading={reading} />
  </svg>
)
