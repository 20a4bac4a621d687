import { useMemo } from 'react'
import { has, heardOver, type PcSet, type Reading, toGlyphs, triadOf } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './Keyboard.module.css'
import { type Key, layoutKeyboard } from './keyboard-layout.ts'
import { FILL_OF, NoteTab } from './NoteTab.tsx'
import { useSize } from './size.ts'
import { pressed, useWalk } from './walk.ts'
import { noteLabel } from './words.ts'

interface Props {
  readonly reading: Reading
  /** The lowest key, a C, as a MIDI number in the pitch shown; and how many octaves. */
  readonly low: number
  readonly octaves: number
  /** Pressed, clicked or entered: the pitch shown. */
  readonly onPress: (pitch: number) => void
  /** Only these pitches carry tabs, where a voicing is shown and not a set. */
  readonly only?: ReadonlySet<number> | undefined
  /** Notes marked above: where a symmetric scale begins again. */
  readonly marks?: PcSet
}

const TYPE = { name: 15, degree: 14 }
const MOST_HIGH = 280

/** The overlay on a keyboard; each of its notes carries its tab. A pair's triads are threaded in the first octave. */
export const Keyboard = ({ reading, low, octaves, onPress, only, marks }: Props) => {
  const [box, size] = useSize<HTMLDivElement>()
  const [w, h] = [size?.w ?? 620, Math.min(size?.h || MOST_HIGH, MOST_HIGH)]
  const keys = useMemo(() => layoutKeyboard(low, octaves, w - 2, h - 2), [low, octaves, w, h])
  const inOrder = useMemo(() => [...keys].sort((a, b) => a.pitch - b.pitch), [keys])
  const walk = useWalk(inOrder.map((k) => ({ x: k.pitch, y: 0 })))
  const noteAt = (k: Key) => (only && !only.has(k.pitch) ? undefined : reading.notes.find((n) => n.note.pc === k.pc))
  const tabOf = (k: Key) => {
    const tw = Math.min(34, k.w - 3)
    return { w: tw, h: 40, x: k.x + 1 + (k.w - tw) / 2, y: k.h - 46 }
  }
  const threads = (only ? [] : (reading.overlay.groups ?? [])).map((g) =>
    inOrder
      .filter((k) => k.pitch < low + 12 && g.notes.some((n) => n.pc === k.pc))
      .map((k) => {
        const t = tabOf(k)
        return `${t.x + t.w / 2},${t.y - 7}`
      }),
  )
  return (
    <div ref={box} className={styles.box}>
      <svg
        role="group"
        aria-label="Keyboard"
        className={styles.keyboard}
        width={w}
        height={h}
        onKeyDown={walk.onKeyDown}
      >
        {keys.map((k) => {
          const at = k.pitch - low
          const note = noteAt(k)
          const label = note ? noteLabel(note) : `${toGlyphs(heardOver(reading.place.chord, k.pc).name)}, not in it`
          return (
            <g
              key={k.pitch}
              data-at={at}
              data-pitch={k.pitch}
              role="button"
              tabIndex={at === walk.stop ? 0 : -1}
              aria-label={label}
              className={`${styles.key} ${hueClass(note?.fade ?? 0)}`}
              onFocus={() => walk.setAt(at)}
              onClick={() => onPress(k.pitch)}
              onKeyDown={pressed(() => onPress(k.pitch))}
            >
              <rect
                className={k.black ? styles.black : styles.white}
                x={k.x + 1}
                y={1}
                width={k.w}
                height={k.h}
                rx={3}
              />
              {marks !== undefined && has(marks, k.pc) && (
                <path className={styles.mark} d={`M${k.x + k.w / 2 - 8},6 h16 l-8,11 z`} />
              )}
              {note && (
                <NoteTab
                  note={note}
                  {...tabOf(k)}
                  type={{
                    name: Math.max(13, Math.min(TYPE.name, k.w * 0.5)),
                    degree: Math.max(13, Math.min(TYPE.degree, k.w * 0.45)),
                  }}
                  fill={FILL_OF[triadOf(reading, note) ?? 'first']}
                />
              )}
            </g>
          )
        })}
        {threads.map((points, i) => (
          <polyline
            key={points.join(' ')}
            className={i === 0 ? styles.thread : styles.otherThread}
            points={points.join(' ')}
          />
        ))}
      </svg>
    </div>
  )
}
