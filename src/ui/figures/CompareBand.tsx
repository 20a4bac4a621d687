import { has, type PcSet, pitchClass, type Reading, toGlyphs, triadOf } from '../../core/index.ts'
import styles from './CompareBand.module.css'
import { hueClass } from './hue.ts'
import { useSize } from './size.ts'
import { tabLook, tabPath } from './tab-shape.ts'

interface Props {
  readonly reading: Reading
  /** What every overlay in the tray holds, and what this one alone does. */
  readonly shared: PcSet
  readonly own: PcSet
  readonly height: number
}

const TAB = 23
const FOOT = 10

/** One overlay of a few, on the same twelve columns and the same scale as the others. */
export const CompareBand = ({ reading, shared, own, height }: Props) => {
  const [box, size] = useSize<HTMLDivElement>()
  const width = size?.w ?? 460
  const column = width / 12
  const home = height - FOOT
  const w = Math.min(36, column - 3)
  return (
    <div ref={box} className={styles.box}>
      <svg className={styles.band} width={width} height={height} aria-hidden="true">
        {Array.from({ length: 12 }, (_, up) =>
          has(reading.place.chord.ownSet, up) ? (
            // biome-ignore lint/suspicious/noArrayIndexKey: the twelve columns never move
            <rect key={up} className={styles.column} x={up * column + 1} y={0} width={column - 2} height={home} />
          ) : null,
        )}
        {reading.notes.map((n) => {
          const x = pitchClass(n.note.pc - reading.place.chord.root.pc) * column + (column - w) / 2
          const y = home - TAB - (n.fade / 100) * (home - TAB - 6)
          return (
            <g key={n.note.name} className={hueClass(n.fade)}>
              <path
                className={triadOf(reading, n) === 'second' ? styles.hollow : styles.tab}
                d={tabPath(tabLook(n), x, y, w, TAB)}
              />
              <text
                className={triadOf(reading, n) === 'second' ? styles.inkDegree : styles.degree}
                x={x + w / 2}
                y={y + 17}
              >
                {toGlyphs(n.degree)}
              </text>
              {has(own, n.note.pc) && (
                <rect className={styles.own} x={x - 3} y={y - 4} width={w + 6} height={TAB + 7} />
              )}
              {has(shared, n.note.pc) && <path className={styles.shared} d={`M${x},${home + 6} h${w}`} />}
            </g>
          )
        })}
        <line className={styles.home} x1={0} x2={width} y1={home} y2={home} />
      </svg>
    </div>
  )
}
