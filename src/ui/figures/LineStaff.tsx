import { useEffect, useMemo, useRef, useState } from 'react'
import {
  type Audit,
  beatTicks,
  type Chart,
  type Fingered,
  type Key,
  type Pitch,
  pitchNamed,
  type Written,
  writtenBar,
} from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './LineStaff.module.css'
import type { BarInTime, LineLayout } from './line-band-layout.ts'
import type { StaffClef } from './notation.ts'
import { staffHeight } from './staff-size.ts'

/** Where each note of a line is stopped, by its place in it. */
export interface Tablature {
  readonly frets: readonly (Fingered | null)[]
  readonly strings: number
}

interface Props {
  readonly chart: Chart
  readonly keyHere: Key | null
  readonly audit: Audit
  readonly layout: LineLayout
  readonly bars: readonly BarInTime[]
  readonly clef: StaffClef
  /** Where each note is stopped, and on how many strings; null without tablature. */
  readonly tab: Tablature | null
  /** Whether all of it is drawn, in sight or not. */
  readonly onPaper?: boolean
  /** Whether the line goes on in another row. */
  readonly goesOn?: boolean
}

interface BarProps extends Omit<Props, 'bars' | 'goesOn'> {
  readonly bar: BarInTime
  readonly signs: readonly Written[]
  readonly tiedOver: boolean
  readonly last: boolean
  readonly pitches: readonly Pitch[]
}

/** The key as the notation library names it; keys it cannot write have no signature. */
const keySpec = (key: Key | null): string => {
  const name = key ? `${key.tonic.name}${key.mode === 'minor' ? 'm' : ''}` : 'C'
  return /^([CGDAEFB]|[FC]#|[BEADGC]b|[AEBDGCF]m|[FCGDA]#m|[BEA]bm)$/.test(name) ? name : 'C'
}

/** A note's head stands so far behind its moment: over its tab, and clear of the bar line. */
const INSET = 13
const NO_STAFF = 'The staff could not be loaded.'

/** One bar, drawn when it comes near the window. */
const StaffBar = ({
  keyHere,
  audit,
  layout,
  clef,
  tab,
  bar,
  signs,
  tiedOver,
  last,
  pitches,
  onPaper = false,
}: BarProps) => {
  const box = useRef<HTMLDivElement>(null)
  const [near, setNear] = useState(onPaper)
  const [left, right] = [layout.x(bar.from), layout.x(bar.to)]
  useEffect(() => {
    const element = box.current
    if (!element) return
    const watch = new IntersectionObserver(([e]) => e?.isIntersecting && setNear(true), { rootMargin: '0px 600px' })
    watch.observe(element)
    return () => watch.disconnect()
  }, [])
  useEffect(() => {
    if (!near) return
    let wanted = true
    void Promise.all([import('./notation.ts'), import('./line-notation.ts')]).then(
      async ([{ notationFonts }, { drawBar }]) => {
        await notationFonts()
        if (!wanted || !box.current) return
        drawBar(box.current, {
          signs,
          pitches,
          frets: tab?.frets ?? null,
          strings: tab?.strings ?? 0,
          clef,
          key: keySpec(keyHere),
          metre: bar.metre,
          last,
          tiedOver,
          width: right - left,
          x: (tick) => layout.x(tick) - left + INSET,
          classOf: (n) => `${styles.note} ${hueClass(audit.notes[n]?.fade ?? 0)} n${n}`,
        })
      },
      () => undefined,
    )
    return () => {
      wanted = false
    }
  }, [near, signs, pitches, tab, clef, keyHere, bar, last, tiedOver, left, right, layout, audit])
  return <div ref={box} className={styles.bar} style={{ left, width: right - left }} />
}

/** Clef and signature, which stay in sight while the bars move under them. */
const Clef = ({ clef, keyHere, tab }: Pick<Props, 'clef' | 'keyHere' | 'tab'>) => {
  const box = useRef<HTMLDivElement>(null)
  const strings = tab?.strings ?? 0
  useEffect(() => {
    let wanted = true
    void Promise.all([import('./notation.ts'), import('./line-notation.ts')]).then(
      async ([{ notationFonts }, { drawClef }]) => {
        await notationFonts()
        if (wanted && box.current) drawClef(box.current, clef, keySpec(keyHere), strings)
      },
      () => box.current?.replaceChildren(NO_STAFF),
    )
    return () => {
      wanted = false
    }
  }, [clef, keyHere, strings])
  return <div ref={box} className={styles.clef} />
}

/** A line on the staff, over the same moments as its band: values, accidentals, ties; and its tablature. */
export const LineStaff = (props: Props) => {
  const { audit, bars, layout, tab, clef, keyHere, goesOn = false } = props
  const { notes } = audit
  const pitches = useMemo(() => notes.map((n) => pitchNamed(n.name, n.pitch)), [notes])
  const written = useMemo(() => bars.map((b) => writtenBar(notes, b, beatTicks(b.metre))), [bars, notes])
  return (
    <div className={styles.staff} style={{ width: layout.width, height: staffHeight(tab !== null) }} aria-hidden="true">
      <Clef clef={clef} keyHere={keyHere} tab={tab} />
      {bars.map((bar, i) => (
        <StaffBar
          key={bar.from}
          {...props}
          bar={bar}
          signs={written[i] ?? []}
          tiedOver={written[i - 1]?.at(-1)?.tied === true}
          last={!goesOn && i === bars.length - 1}
          pitches={pitches}
        />
      ))}
    </div>
  )
}
