import { type MouseEvent, useEffect, useRef, useState } from 'react'
import type { NoteReading, Pitch } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { type Fill, NoteTab } from './NoteTab.tsx'
import type { Drawn, StaffClef } from './notation.ts'
import styles from './Staff.module.css'
import { useSize } from './size.ts'
import { pressed, useWalk } from './walk.ts'
import { noteLabel } from './words.ts'

/** One place on the staff: a note or a chord, with the reading whose tab stands under it. */
export interface StaffEntry {
  readonly pitches: readonly Pitch[]
  readonly note?: NoteReading
  readonly fill?: Fill
  /** Words under it where it has no tab. */
  readonly label?: string
}

interface Props {
  readonly entries: readonly StaffEntry[]
  readonly clef: StaffClef
  readonly name: string
  readonly scale?: number
  readonly small?: boolean
  /** Tapped or entered: the entry's index. */
  readonly onPress?: (index: number) => void
  /** Tapped beside the notes: the letter's place, 0 = middle line, upward in steps. */
  readonly onLine?: (steps: number) => void
}

/** Tabs, and where they begin under the stave; smaller on paper. */
const TAB = { w: 36, h: 42, top: 18 }
const SMALL_TAB = { w: 33, h: 36, top: 12 }
const STEADY = 'Drawing …'
const FAILED = 'The staff could not be loaded: the program is not answering.'

/** Notes on one staff, each over its tab. */
export const Staff = ({ entries, clef, name, scale = 1.4, small = false, onPress, onLine }: Props) => {
  const [box, size] = useSize<HTMLDivElement>()
  const canvas = useRef<HTMLDivElement>(null)
  const [failed, setFailed] = useState(false)
  const [drawn, setDrawn] = useState<Drawn | null>(null)
  const width = Math.floor(size?.w ?? 0)
  const tab = small ? SMALL_TAB : TAB
  useEffect(() => {
    if (width === 0) return
    let wanted = true
    const draw = async ({ drawStave, notationFonts }: typeof import('./notation.ts')) => {
      await notationFonts()
      if (wanted && canvas.current)
        setDrawn(
          drawStave(
            canvas.current,
            entries.map((e) => e.pitches),
            clef,
            width,
            scale,
          ),
        )
    }
    void import('./notation.ts').then(draw).catch(() => wanted && setFailed(true))
    return () => {
      wanted = false
    }
  }, [entries, clef, width, scale])
  const walk = useWalk(entries.map((_, i) => ({ x: i, y: 0 })))
  const onClick = (e: MouseEvent<HTMLDivElement>) => {
    if (!drawn || !onLine) return
    const y = e.clientY - e.currentTarget.getBoundingClientRect().top
    onLine(Math.round((drawn.middle - y) / (drawn.space / 2)))
  }
  const threads = drawn ? (['solid', 'hollow'] as const).map((fill) => threadOf(entries, drawn, fill)) : []
  return (
    <div ref={box} className={styles.box}>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: keys enter notes on the keyboard picture; this is for a pointer */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the same */}
      <div ref={canvas} className={styles.canvas} onClick={onClick} />
      {drawn === null && <p role={failed ? 'alert' : undefined}>{failed ? FAILED : STEADY}</p>}
      {drawn && (
        <svg
          role="group"
          aria-label={name}
          className={styles.tabs}
          width={width}
          height={tab.top + tab.h + 4}
          onKeyDown={walk.onKeyDown}
        >
          {threads.map((points, i) => (
            <polyline
              key={i === 0 ? 'first' : 'second'}
              className={i === 0 ? styles.thread : styles.otherThread}
              points={points}
            />
          ))}
          {entries.map((entry, i) => {
            const x = drawn.xs[i] ?? 0
            const key = `${i} ${entry.pitches.map((p) => p.pitch).join(' ')}`
            if (!entry.note)
              return (
                <text key={key} className={styles.label} x={x} y={18}>
                  {entry.label}
                </text>
              )
            return (
              <g
                key={key}
                data-at={i}
                data-pitch={entry.pitches[0]?.pitch}
                role="button"
                tabIndex={i === walk.stop ? 0 : -1}
                aria-label={noteLabel(entry.note)}
                className={`${styles.place} ${hueClass(entry.note.fade)}`}
                onFocus={() => walk.setAt(i)}
                onClick={() => onPress?.(i)}
                onKeyDown={pressed(() => onPress?.(i))}
              >
                <NoteTab
                  note={entry.note}
                  x={x - tab.w / 2}
                  y={tab.top}
                  w={tab.w}
                  h={tab.h}
                  fill={entry.fill ?? 'solid'}
                  type={{ name: 15, degree: 13.5 }}
                />
              </g>
            )
          })}
        </svg>
      )}
    </div>
  )
}

/** A triad's thread runs over its tabs. */
const threadOf = (entries: readonly StaffEntry[], drawn: Drawn, fill: Fill): string => {
  if (!entries.some((e) => e.fill === 'hollow')) return ''
  return entries
    .flatMap((e, i) =>
      e.note && (e.fill === fill || e.fill === 'half') ? [`${drawn.xs[i]},${fill === 'solid' ? 3 : 8}`] : [],
    )
    .join(' ')
}
