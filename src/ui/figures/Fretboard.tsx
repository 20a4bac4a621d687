import { useMemo } from 'react'
import {
  fretsIn,
  has,
  type PcSet,
  type Position,
  type Reading,
  type Tuning,
  toGlyphs,
  triadOf,
} from '../../core/index.ts'
import styles from './Fretboard.module.css'
import { layoutFretboard } from './fretboard-layout.ts'
import { hueClass } from './hue.ts'
import { FILL_OF, NoteTab } from './NoteTab.tsx'
import { useSize } from './size.ts'
import { pressed, useWalk } from './walk.ts'
import { noteLabel } from './words.ts'

interface Props {
  readonly reading: Reading
  readonly tuning: Tuning
  readonly position: Position
  readonly leftHanded: boolean
  /** Whether empty places can be walked and pressed too. */
  readonly picking: boolean
  readonly onPress: (pitch: number) => void
  /** Only these pitches carry tabs, where a voicing is shown and not a set. */
  readonly only?: ReadonlySet<number> | undefined
  /** Notes marked above: where a symmetric scale begins again. */
  readonly marks?: PcSet
}

const ROOM_FOR_NAME = 34

/** The overlay on a neck; each of its notes carries its tab. */
export const Fretboard = ({ reading, tuning, position, leftHanded, picking, onPress, only, marks }: Props) => {
  const [box, size] = useSize<HTMLDivElement>()
  const [w, h] = [size?.w ?? 620, size?.h || 320]
  const layout = useMemo(
    () => layoutFretboard(tuning, position, leftHanded, w, h),
    [tuning, position, leftHanded, w, h],
  )
  const byPc = useMemo(() => new Map(reading.notes.map((n) => [n.note.pc, n])), [reading])
  const places = useMemo(
    () => fretsIn(tuning, position).filter((f) => picking || (byPc.has(f.pc) && (!only || only.has(f.pitch)))),
    [tuning, position, picking, byPc, only],
  )
  const walk = useWalk(places.map(layout.at))
  const { tab } = layout
  const small = tab.h < ROOM_FOR_NAME
  return (
    <div ref={box} className={styles.box}>
      <svg
        role="group"
        aria-label="Fretboard"
        className={styles.neck}
        width={layout.width}
        height={layout.height}
        onKeyDown={walk.onKeyDown}
      >
        <g aria-hidden="true">
          {layout.wires.map((wire) => (
            <line
              key={wire.x}
              className={wire.nut ? styles.nut : styles.wire}
              x1={wire.x}
              x2={wire.x}
              y1={0}
              y2={layout.height - 24}
            />
          ))}
          {layout.strings.map((s) => (
            <line
              key={s.y}
              className={styles.string}
              strokeWidth={s.thick}
              x1={0}
              x2={layout.width}
              y1={s.y}
              y2={s.y}
            />
          ))}
          {layout.numbers.map((n) => (
            <text key={n.fret} className={n.dot ? styles.dotted : styles.number} x={n.x} y={layout.height - 6}>
              {n.fret}
            </text>
          ))}
        </g>
        {places.map((f, i) => {
          const note = byPc.get(f.pc)
          const { x, y } = layout.at(f)
          const where = `string ${tuning.length - f.string}, ${f.fret === 0 ? 'open' : `fret ${f.fret}`}`
          return (
            <g
              key={`${f.string} ${f.fret}`}
              data-at={i}
              data-pitch={f.pitch}
              role="button"
              tabIndex={i === walk.stop ? 0 : -1}
              aria-label={note ? `${noteLabel(note)}, ${where}` : `empty, ${where}`}
              className={`${styles.place} ${hueClass(note?.fade ?? 0)}`}
              onFocus={() => walk.setAt(i)}
              onClick={() => onPress(f.pitch)}
              onKeyDown={pressed(() => onPress(f.pitch))}
            >
              {note ? (
                small ? (
                  <ShortTab
                    {...{ x, y, tab }}
                    name={toGlyphs(note.note.name)}
                    hollow={triadOf(reading, note) === 'second'}
                  />
                ) : (
                  <NoteTab
                    note={note}
                    x={x - tab.w / 2}
                    y={y - tab.h / 2}
                    {...tab}
                    type={{ name: 14, degree: 13 }}
                    fill={FILL_OF[triadOf(reading, note) ?? 'first']}
                  />
                )
              ) : (
                <circle className={styles.empty} cx={x} cy={y} r={9} />
              )}
              {note && marks !== undefined && has(marks, f.pc) && (
                <path className={styles.mark} d={`M${x - 7},${y - tab.h / 2 - 5} h14 l-7,9 z`} />
              )}
            </g>
          )
        })}
      </svg>
    </div>
  )
}

/** Where strings lie too close for two lines: the name alone. */
const ShortTab = ({
  x,
  y,
  tab,
  name,
  hollow,
}: {
  readonly x: number
  readonly y: number
  readonly tab: { readonly w: number; readonly h: number }
  readonly name: string
  readonly hollow: boolean
}) => (
  <>
    <rect
      className={hollow ? styles.shortHollow : styles.short}
      x={x - tab.w / 2}
      y={y - tab.h / 2}
      width={tab.w}
      height={tab.h}
    />
    <text className={hollow ? styles.shortInk : styles.shortName} x={x} y={y + 5}>
      {name}
    </text>
  </>
)
