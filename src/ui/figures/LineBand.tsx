import { type MouseEvent, useMemo, useRef } from 'react'
import { type Audit, type Chart, type Key, metreName, newMetres, toGlyphs } from '../../core/index.ts'
import { useInView } from './in-view.ts'
import styles from './LineBand.module.css'
import { LineOverview } from './LineOverview.tsx'
import { LineStaff, type Tablature } from './LineStaff.tsx'
import { LineTab } from './LineTab.tsx'
import { cellPath, fitting, LINE, type LineLayout, layoutLine, stretchPath } from './line-band-layout.ts'
import type { StaffClef } from './notation.ts'
import { Playhead } from './Playhead.tsx'
import { useShort } from './short.ts'
import { useInSight } from './sight.ts'
import { EXIT_SIGN } from './slope-layout.ts'
import { liftOver, MIDDLE, STAFF, staffHeight, stepsFromMiddle } from './staff-size.ts'
import { beatsWords } from './words.ts'

interface Props {
  readonly chart: Chart
  readonly keyHere: Key | null
  readonly audit: Audit
  readonly current: number
  /** Notes a sentence speaks of. */
  readonly marked: readonly number[]
  readonly clef: StaffClef
  readonly tab: Tablature | null
  readonly zoom: number
  /** Whether notes rise less high, for the sake of what stands under them; in a short window always. */
  readonly low?: boolean
  /** The tick that sounds now; null while nothing does. */
  readonly music: (() => number | null) | null
  readonly onGo: (note: number) => void
  /** Where the staff is tapped while one writes: a moment, a letter (0 = C) and an octave. */
  readonly onStaff: ((tick: number, letter: number, octave: number) => void) | null
}

/** So much from the beginning of a note must be in sight. */
const NOTE_SEEN = 60

const HOW_SIGN = { ...EXIT_SIGN, enclosure: 'enclosed', cut: 'cut' } as const

/** Names of what a piece of the line is, as its bracket says them. */
const cellName = (c: Audit['cells'][number]): string =>
  c.how === 'enclosure' ? 'enclosure' : toGlyphs(c.overlay?.name ?? '').replace(/ arpeggio$/, '')

/** What a stretch outside is, in as many words as there is room for. */
const stretchText = ({ notes, timeline }: Audit, s: Audit['stretches'][number], room: number): string => {
  const [a, b] = [notes[s.from], notes[s.to]]
  const beats = a && b ? (b.at + b.for - a.at) / timeline.beat : 0
  const sign = s.landing ? HOW_SIGN[s.landing.how] : 'unresolved'
  const all = `out ${beats < 0.9 ? 'less than a beat' : beatsWords(Math.round(beats * 2) / 2)}, peak ${s.peak}, ${sign}`
  return fitting(all, room) === all ? all : `${s.peak} ${sign}`
}

/** A line of more notes is drawn only where it is in sight. */
const WINDOWED_FROM = 1000

/** Chord symbols and bar numbers over a line, again in each chorus. */
const LineChords = ({
  chart,
  audit,
  layout,
  top,
  isSeen,
}: {
  readonly chart: Chart
  readonly audit: Audit
  readonly layout: LineLayout
  readonly top: number
  readonly isSeen: (x: number, w: number) => boolean
}) => {
  const { soundings, length } = audit.timeline
  const metres = useMemo(() => newMetres(chart), [chart])
  const choruses = length > 0 ? Math.ceil((layout.bars.at(-1)?.to ?? 0) / length) : 0
  return Array.from({ length: choruses }, (_, k) => k * length).flatMap((start) =>
    soundings.flatMap(({ from, to, spot: { spot } }) => {
      const x = layout.x(start + from)
      if (!isSeen(x, layout.x(start + to) - x)) return []
      return (
        <g key={start + from} aria-hidden="true">
          <line className={styles.side} x1={x} x2={x} y1={top} y2={layout.home} />
          <text className={styles.symbol} x={x + 6} y={LINE.symbols}>
            {toGlyphs(spot.chord.symbol)}
          </text>
          {spot.at === 0 && (
            <text className={styles.number} x={x + 6} y={LINE.number}>
              {spot.bar}
              {metres.has(spot.bar) ? ` ${metreName(spot.metre)}` : ''}
            </text>
          )}
        </g>
      )
    }),
  )
}

/** A line over its chords: on the staff, and each note as long as it lasts, as high as it is far out, its outline by its role. */
export const LineBand = ({
  chart,
  keyHere,
  audit,
  current,
  marked,
  clef,
  tab,
  zoom,
  low: isLow = false,
  music,
  onGo,
  onStaff,
}: Props) => {
  const scroller = useRef<HTMLDivElement>(null)
  const { notes, stretches, jobs, cells } = audit
  const isShort = useShort()
  const low = isLow || isShort
  const withTab = tab !== null
  const lift = liftOver(
    notes.reduce((most, n) => Math.max(most, n.pitch), 0),
    clef,
  )
  const layout = useMemo(
    () => layoutLine(audit, chart, { withTab, zoom, low, lift }),
    [audit, chart, withTab, zoom, low, lift],
  )
  const here = layout.notes[current]
  const x = here?.x ?? 0
  useInSight(scroller, { x, w: NOTE_SEEN, covered: LINE.margin })
  const isSeen = useInView(scroller, notes.length > WINDOWED_FROM, x)
  const tapped = (e: MouseEvent<SVGElement>) => {
    const box = e.currentTarget.ownerSVGElement?.getBoundingClientRect()
    if (!box || !onStaff) return
    const place = MIDDLE[clef] + stepsFromMiddle(e.clientY - box.top - layout.staff)
    onStaff(layout.tickAt(e.clientX - box.left), place % 7, Math.floor(place / 7))
  }
  return (
    <>
      <LineOverview layout={layout} notes={notes} scroller={scroller} />
      <div ref={scroller} className={styles.scroller}>
        <div className={styles.canvas} style={{ width: layout.width, height: layout.height }}>
          <div className={styles.staffPlace} style={{ top: layout.staff }}>
            <LineStaff
              chart={chart}
              keyHere={keyHere}
              audit={audit}
              layout={layout}
              bars={layout.bars}
              clef={clef}
              tab={tab}
            />
          </div>
          <svg role="group" aria-label="Line" className={styles.band} width={layout.width} height={layout.height}>
            <LineChords
              chart={chart}
              audit={audit}
              layout={layout}
              top={layout.staff + staffHeight(withTab)}
              isSeen={isSeen}
            />
            <line className={styles.homeLine} x1={0} x2="100%" y1={layout.home} y2={layout.home} aria-hidden="true" />
            {onStaff && (
              // biome-ignore lint/a11y/noStaticElementInteractions: keys write degrees in the entry field; this is for a pointer
              <rect
                className={styles.taps}
                x={0}
                y={layout.staff - 20}
                width={layout.width}
                height={STAFF.height + 20}
                onClick={tapped}
              />
            )}
            {cells.map((c) => {
              const [a, b] = [layout.notes[c.from], layout.notes[c.to]]
              if (c.how === 'loose' || !a || !b) return null
              const width = b.x + b.w - a.x
              if (!isSeen(a.x, width)) return null
              return (
                <g key={c.from} aria-hidden="true">
                  <path className={styles.cell} d={cellPath(layout, c.from, c.to)} />
                  <text className={styles.cellName} x={a.x + width / 2} y={layout.cells + 24}>
                    {fitting(cellName(c), width + 8)}
                  </text>
                </g>
              )
            })}
            {stretches.map((s, k) => {
              const landed = s.landing && s.landing.how !== 'cut' ? s.landing : null
              const [a, b] = [layout.notes[s.from], layout.notes[landed?.on ?? s.to]]
              if (!a || !b || !isSeen(a.x, b.x + b.w - a.x)) return null
              return (
                <g key={s.from} aria-hidden="true">
                  <path
                    className={landed ? styles.stretch : styles.open}
                    d={stretchPath(layout, s.from, s.to, landed?.on ?? null)}
                  />
                  <text className={styles.how} x={a.x + 5} y={layout.home + 30}>
                    {stretchText(audit, s, (layout.notes[stretches[k + 1]?.from ?? -1]?.x ?? Infinity) - a.x)}
                  </text>
                </g>
              )
            })}
            {notes.map((n, i) => {
              const box = layout.notes[i]
              return (
                box &&
                (i === current || isSeen(box.x, box.w)) && (
                  <LineTab
                    key={n.at}
                    note={n}
                    next={notes[i + 1]}
                    job={jobs[i] ?? ''}
                    {...box}
                    home={layout.home}
                    here={i === current}
                    marked={marked.includes(i)}
                    onGo={onGo}
                  />
                )
              )
            })}
            {music && <Playhead now={music} xAt={layout.x} top={layout.staff} bottom={layout.home + 8} />}
          </svg>
        </div>
      </div>
    </>
  )
}
