import { type MouseEvent, useEffect, useRef, useState } from 'react'
import { type NoteReading, type Pitch, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import type { Tablature } from './LineStaff.tsx'
import { type Fill, NoteTab } from './NoteTab.tsx'
import type { Drawn, StaffClef } from './notation.ts'
import styles from './Staff.module.css'
import { useSize } from './size.ts'
import { EXIT_SIGN } from './slope-layout.ts'
import { pressed, useWalk } from './walk.ts'
import { noteLabel } from './words.ts'

/** One place on the staff: a note or a chord, with the reading whose tab stands under it. */
export interface StaffEntry {
  readonly pitches: readonly Pitch[]
  readonly note?: NoteReading
  readonly fill?: Fill
  /** The chord that begins here. */
  readonly above?: string
  /** Words under it where it has no tab. */
  readonly label?: string
}

interface Props {
  readonly entries: readonly StaffEntry[]
  readonly clef: StaffClef
  readonly name: string
  readonly scale?: number
  readonly small?: boolean
  /** Whether it may be wider than its place, so that each tab has room. */
  readonly wide?: boolean
  /** Whether each note's best exit stands under it: how, and to which of the next chord's notes. */
  readonly exits?: boolean
  /** Where each entry is stopped, under the staff. */
  readonly tab?: Tablature | null
  /** Tapped or entered: the entry's index. */
  readonly onPress?: (index: number) => void
  /** Tapped beside the notes: the letter's place, 0 = middle line, upward in steps. */
  readonly onLine?: (steps: number) => void
}

/** Tabs, and where they begin under the stave; smaller on paper. */
const TAB = { w: 36, h: 42, top: 18 }
const SMALL_TAB = { w: 33, h: 36, top: 12 }
const EXIT = { line: 8, height: 46 }
const EXIT_LOOK: Readonly<Record<string, string | undefined>> = {
  'half step down': styles.half,
  'half step up': styles.half,
  held: styles.held,
}
const STRING_GAP = 11
/** What the clef and the end of the staff take. */
const CLEF_ROOM = 110
const ABOVE = 22
const STEADY = 'Drawing …'
const FAILED = 'The staff could not be loaded: the program is not answering.'

/** Notes on one staff, each over its tab. */
export const Staff = ({
  entries,
  clef,
  name,
  scale = 1.4,
  small = false,
  exits = false,
  wide = false,
  tab: stops = null,
  onPress,
  onLine,
}: Props) => {
  const [box, size] = useSize<HTMLDivElement>()
  const canvas = useRef<HTMLDivElement>(null)
  const [failed, setFailed] = useState(false)
  const [drawn, setDrawn] = useState<(Drawn & { readonly of: Props['entries'] }) | null>(null)
  const tab = small ? SMALL_TAB : TAB
  const place = Math.floor(size?.w ?? 0)
  const width = wide && place > 0 ? Math.max(place, CLEF_ROOM + entries.length * (tab.w + 3)) : place
  useEffect(() => {
    if (width === 0) return
    let wanted = true
    const draw = async ({ drawStave, notationFonts }: typeof import('./notation.ts')) => {
      await notationFonts()
      if (wanted && canvas.current)
        setDrawn({
          of: entries,
          ...drawStave(
            canvas.current,
            entries.map((e) => e.pitches),
            clef,
            width,
            scale,
          ),
        })
    }
    void import('./notation.ts').then(draw).catch(() => wanted && setFailed(true))
    return () => {
      wanted = false
    }
  }, [entries, clef, width, scale])
  // Until the stave is drawn anew its tabs are those of the stave that is there.
  const shown = drawn?.of ?? entries
  const walk = useWalk(shown.map((_, i) => ({ x: i, y: 0 })))
  const onClick = (e: MouseEvent<HTMLDivElement>) => {
    if (!drawn || !onLine) return
    const y = e.clientY - e.currentTarget.getBoundingClientRect().top
    onLine(Math.round((drawn.middle - y) / (drawn.space / 2)))
  }
  const under = tab.top + tab.h
  const tabTop = under + (exits ? EXIT.height : 4)
  const threads = drawn ? (['solid', 'hollow'] as const).map((fill) => threadOf(shown, drawn, fill)) : []
  return (
    <div ref={box} className={styles.box}>
      {drawn && shown.some((e) => e.above) && (
        <svg className={styles.tabs} width={width} height={ABOVE} aria-hidden="true">
          {shown.map((e, i) =>
            e.above ? (
              <text key={String(drawn.xs[i])} className={styles.above} x={(drawn.xs[i] ?? 0) - 8} y={17}>
                {e.above}
              </text>
            ) : null,
          )}
        </svg>
      )}
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
          height={tabTop + (stops ? (stops.strings - 1) * STRING_GAP + 12 : 0)}
          onKeyDown={walk.onKeyDown}
        >
          {threads.map((points, i) => (
            <polyline
              key={i === 0 ? 'first' : 'second'}
              className={i === 0 ? styles.thread : styles.otherThread}
              points={points}
            />
          ))}
          {shown.map((entry, i) => {
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
                {exits && <Exit note={entry.note} x={x} y={under} />}
              </g>
            )
          })}
          {stops && <Tab tab={stops} xs={drawn.xs} y={tabTop} width={width} />}
        </svg>
      )}
    </div>
  )
}

/** A note's best way into the next chord: thick a half step, thin a whole step, dotted held; a cut stub where there is none. */
const Exit = ({ note, x, y }: { readonly note: NoteReading; readonly x: number; readonly y: number }) => {
  const exit = note.exits[0]
  if (!exit) return <path className={styles.stub} d={`M${x},${y} v8 m-5,0 h10`} />
  return (
    <>
      <path className={`${styles.exit} ${EXIT_LOOK[exit.how]}`} d={`M${x},${y + 1} v${EXIT.line}`} />
      <text className={styles.exitText} x={x} y={y + EXIT.line + 13}>
        {EXIT_SIGN[exit.how]}
      </text>
      <text className={styles.exitTo} x={x} y={y + EXIT.line + 28}>
        {toGlyphs(exit.to.name)}
      </text>
    </>
  )
}

interface TabProps {
  readonly tab: Tablature
  readonly xs: readonly number[]
  readonly y: number
  readonly width: number
}

/** Tablature: a line for each string, the highest on top, frets over their notes. */
const Tab = ({ tab, xs, y, width }: TabProps) => (
  <g aria-hidden="true">
    {Array.from({ length: tab.strings }, (_, i) => y + 6 + i * STRING_GAP).map((line) => (
      <line key={line} className={styles.string} x1={0} x2={width} y1={line} y2={line} />
    ))}
    {tab.frets.map((at, i) => {
      const x = xs[i]
      return at && x !== undefined ? (
        <text key={x} className={styles.fret} x={x} y={y + 11 + (tab.strings - 1 - at.string) * STRING_GAP}>
          {at.fret}
        </text>
      ) : null
    })}
  </g>
)

/** A triad's thread runs over its tabs. */
const threadOf = (entries: readonly StaffEntry[], drawn: Drawn, fill: Fill): string => {
  if (!entries.some((e) => e.fill === 'hollow')) return ''
  return entries
    .flatMap((e, i) =>
      e.note && (e.fill === fill || e.fill === 'half') ? [`${drawn.xs[i]},${fill === 'solid' ? 3 : 8}`] : [],
    )
    .join(' ')
}
