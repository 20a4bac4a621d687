import { useEffect, useRef } from 'react'
import { type Audit, type Chart, type HeardNote, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './LineBand.module.css'
import { LINE, layoutLine, stretchPath } from './line-band-layout.ts'
import { ROLE_SHAPES, type TabLook, tabPath } from './tab-shape.ts'
import { beatText } from './words.ts'

interface Props {
  readonly chart: Chart
  readonly audit: Audit
  readonly current: number
  /** Notes a sentence speaks of. */
  readonly marked: readonly number[]
  readonly onGo: (note: number) => void
}

const HOOK = 5

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

const HOW_SIGN = {
  held: '=',
  'half step down': '↓½',
  'half step up': '↑½',
  'whole step down': '↓1',
  'whole step up': '↑1',
  enclosure: 'enclosed',
  cut: 'cut',
} as const

/** A line over its chords: each note as long as it lasts, as high as it is far out, its outline by its role. */
export const LineBand = ({ chart, audit, current, marked, onGo }: Props) => {
  const scroller = useRef<HTMLDivElement>(null)
  const { notes, timeline, stretches, jobs } = audit
  const layout = layoutLine(audit, chart)
  const here = layout.notes[current]
  const x = here?.x ?? 0
  useEffect(() => {
    const box = scroller.current
    if (!box || (x >= box.scrollLeft && x + 60 <= box.scrollLeft + box.clientWidth)) return
    const calm = matchMedia('(prefers-reduced-motion: reduce)').matches
    box.scrollTo({ left: x - box.clientWidth / 3, behavior: calm ? 'instant' : 'smooth' })
  }, [x])
  return (
    <div ref={scroller} className={styles.scroller}>
      <svg role="group" aria-label="Line" className={styles.band} width={layout.width} height={LINE.height}>
        {timeline.soundings.map((s) => {
          const [from, to] = [layout.x(s.from), layout.x(s.to)]
          const first = s.spot.spot.at === 0
          return (
            <g key={s.from} aria-hidden="true">
              <line className={styles.side} x1={from} x2={from} y1={8} y2={LINE.home} />
              <text className={styles.symbol} x={from + 6} y={LINE.symbols}>
                {toGlyphs(s.spot.spot.chord.symbol)}
              </text>
              {first && (
                <text className={styles.number} x={from + 6} y={LINE.number}>
                  {s.spot.spot.bar}
                </text>
              )}
              <rect className={styles.space} x={from} y={0} width={to - from} height={LINE.height} />
            </g>
          )
        })}
        <line className={styles.homeLine} x1={0} x2="100%" y1={LINE.home} y2={LINE.home} aria-hidden="true" />
        {stretches.map((s) => {
          const path = stretchPath(layout, s.from, s.to, s.landing && s.landing.how !== 'cut' ? s.landing.on : null)
          return (
            <g key={s.from} aria-hidden="true">
              <path className={s.landing && s.landing.how !== 'cut' ? styles.stretch : styles.open} d={path} />
              <text className={styles.how} x={(layout.notes[s.from]?.x ?? 0) + 5} y={LINE.home + 33}>
                {s.landing ? HOW_SIGN[s.landing.how] : 'unresolved'}
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
              <path className={styles.stem} d={`M${box.x + 1},${box.y + LINE.tab} V${LINE.home}`} />
              <path className={styles.tab} d={tabPath(look, box.x, box.y, w, LINE.tab)} />
              {look.doubled && <path className={styles.double} d={`M${box.x + 4},${box.y + 5} H${box.x + w - 4}`} />}
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
      </svg>
    </div>
  )
}
