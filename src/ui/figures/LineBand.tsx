import { type MouseEvent, useMemo, useRef } from 'react'
import { type Audit, type Chart, type HeardNote, type Key, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './LineBand.module.css'
import { LineOverview } from './LineOverview.tsx'
import { LineStaff, type Tablature } from './LineStaff.tsx'
import { cellPath, fitting, LINE, layoutLine, stretchPath } from './line-band-layout.ts'
import type { StaffClef } from './notation.ts'
import { Playhead } from './Playhead.tsx'
import { useInSight } from './sight.ts'
import { EXIT_SIGN } from './slope-layout.ts'
import { MIDDLE, STAFF, staffHeight, stepsFromMiddle } from './staff-size.ts'
import { ROLE_SHAPES, type TabLook, tabPath } from './tab-shape.ts'
import { beatsWords, beatText } from './words.ts'

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
  /** The tick that sounds now; null while nothing does. */
  readonly music: (() => number | null) | null
  readonly onGo: (note: number) => void
  /** Where the staff is tapped while one writes: a moment, a letter (0 = C) and an octave. */
  readonly onStaff: ((tick: number, letter: number, octave: number) => void) | null
}

const HOOK = 5
/** So much from the beginning of a note must be in sight. */
const NOTE_SEEN = 60

const lookOf = (n: HeardNote, next: HeardNote | undefined): TabLook => ({
  shape: n.role === null ? 'flat' : ROLE_SHAPES[n.role],
  doubled: n.guide,
  bitten: n.rub,
  lean: next && next.pitch < n.pitch ? 'left' : 'right',
})

const labelOf = (n: HeardNote, job: string): string =>
  [
    `note ${n.n + 1}`,
    toGlyphs(n.name.name),
    ...(n.degree === null ? [] : [toGlyphs(n.degree)]),
    n.role ?? 'no chord',
    ...(n.rub ? ['rub'] : []),
    `fade ${n.fade}`,
    toGlyphs(job),
    `bar ${n.bar}, beat ${beatText(n.beat)}`,
  ].join(', ')

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

/** A line over its chords: on the staff, and each note as long as it lasts, as high as it is far out, its outline by its role. */
export const LineBand = ({ chart, keyHere, audit, current, marked, clef, tab, zoom, music, onGo, onStaff }: Props) => {
  const scroller = useRef<HTMLDivElement>(null)
  const { notes, timeline, stretches, jobs, cells } = audit
  const layout = useMemo(() => layoutLine(audit, chart, tab !== null, zoom), [audit, chart, tab, zoom])
  const here = layout.notes[current]
  const x = here?.x ?? 0
  useInSight(scroller, { x, w: NOTE_SEEN, covered: LINE.margin })
  const form = timeline.length
  const rounds = form > 0 ? Math.max(1, Math.ceil((notes.at(-1)?.at ?? 0) / form)) : 0
  const chords = Array.from({ length: rounds }, (_, k) => k * form).flatMap((start) =>
    timeline.soundings.map((s) => ({ ...s, from: s.from + start, to: s.to + start })),
  )
  const tapped = (e: MouseEvent<SVGElement>) => {
    const box = e.currentTarget.ownerSVGElement?.getBoundingClientRect()
    if (!box || !onStaff) return
    const place = MIDDLE[clef] + stepsFromMiddle(e.clientY - box.top - LINE.staff)
    onStaff(layout.tickAt(e.clientX - box.left), place % 7, Math.floor(place / 7))
  }
  return (
    <>
      <LineOverview layout={layout} notes={notes} scroller={scroller} />
      <div ref={scroller} className={styles.scroller}>
        <div className={styles.canvas} style={{ width: layout.width, height: layout.height }}>
          <div className={styles.staffPlace}>
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
            {chords.map((s) => (
              <g key={s.from} aria-hidden="true">
                <line
                  className={styles.side}
                  x1={layout.x(s.from)}
                  x2={layout.x(s.from)}
                  y1={LINE.staff + staffHeight(tab !== null)}
                  y2={layout.home}
                />
                <text className={styles.symbol} x={layout.x(s.from) + 6} y={LINE.symbols}>
                  {toGlyphs(s.spot.spot.chord.symbol)}
                </text>
                {s.spot.spot.at === 0 && (
                  <text className={styles.number} x={layout.x(s.from) + 6} y={LINE.number}>
                    {s.spot.spot.bar}
                  </text>
                )}
              </g>
            ))}
            <line className={styles.homeLine} x1={0} x2="100%" y1={layout.home} y2={layout.home} aria-hidden="true" />
            {onStaff && (
              // biome-ignore lint/a11y/useKeyWithClickEvents: keys write degrees in the entry field; this is for a pointer
              // biome-ignore lint/a11y/noStaticElementInteractions: the same
              <rect
                className={styles.taps}
                x={0}
                y={LINE.staff - 20}
                width={layout.width}
                height={STAFF.height + 20}
                onClick={tapped}
              />
            )}
            {cells.map((c) => {
              const [a, b] = [layout.notes[c.from], layout.notes[c.to]]
              if (c.how === 'loose' || !a || !b) return null
              const width = b.x + b.w - a.x
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
              const a = layout.notes[s.from]
              return (
                <g key={s.from} aria-hidden="true">
                  <path
                    className={landed ? styles.stretch : styles.open}
                    d={stretchPath(layout, s.from, s.to, landed?.on ?? null)}
                  />
                  <text className={styles.how} x={(a?.x ?? 0) + 5} y={layout.home + 30}>
                    {stretchText(audit, s, (layout.notes[stretches[k + 1]?.from ?? -1]?.x ?? Infinity) - (a?.x ?? 0))}
                  </text>
                </g>
              )
            })}
            {notes.map((n, i) => {
              const box = layout.notes[i]
              if (!box) return null
              const look = lookOf(n, notes[i + 1])
              const w = look.shape === 'hooked' ? box.w - HOOK : box.w
              const inside = box.w >= 26
              return (
                <g
                  key={n.at}
                  role="button"
                  tabIndex={i === current ? 0 : -1}
                  aria-label={labelOf(n, jobs[i] ?? '')}
                  aria-current={i === current ? 'true' : undefined}
                  className={`${styles.note} ${hueClass(n.fade)} ${i === current ? styles.here : ''} ${marked.includes(i) ? styles.marked : ''}`}
                  onClick={() => onGo(i)}
                  onKeyDown={(e) => {
                    if (e.key !== 'Enter' && e.key !== ' ') return
                    e.preventDefault()
                    e.stopPropagation()
                    onGo(i)
                  }}
                >
                  <path className={styles.stem} d={`M${box.x + 1},${box.y + LINE.tab} V${layout.home}`} />
                  <path className={styles.tab} d={tabPath(look, box.x, box.y, w, LINE.tab)} />
                  {look.doubled && (
                    <path className={styles.double} d={`M${box.x + 4},${box.y + 5} H${box.x + w - 4}`} />
                  )}
                  {inside ? (
                    <>
                      <text className={styles.on} x={box.x + w / 2} y={box.y + 16}>
                        {toGlyphs(n.name.name)}
                      </text>
                      <text className={styles.on} x={box.x + w / 2} y={box.y + 30}>
                        {toGlyphs(n.degree ?? '')}
                      </text>
                    </>
                  ) : (
                    <text className={styles.off} x={box.x} y={box.y - 4}>
                      {toGlyphs(n.degree ?? n.name.name)}
                    </text>
                  )}
                </g>
              )
            })}
            {music && <Playhead now={music} xAt={layout.x} top={LINE.staff} bottom={layout.home + 8} />}
          </svg>
        </div>
      </div>
    </>
  )
}
