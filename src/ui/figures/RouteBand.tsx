import { beatTicks, type Chart, metreName, newMetres } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { Playhead } from './Playhead.tsx'
import styles from './RouteBand.module.css'
import { type BandStep, Step } from './RouteStep.tsx'
import { BAND_SIZES, fadeY as fadeYOf, layoutBand, SEAM_HEIGHT } from './route-band-layout.ts'
import { useShort } from './short.ts'
import { useInSight } from './sight.ts'
import { useSize } from './size.ts'
import { loopPath, xOfTick } from './strip-layout.ts'

interface Props {
  readonly chart: Chart
  readonly steps: readonly BandStep[]
  readonly current: number
  /** Whether steps are wide enough for names, so that the form scrolls; else the whole form is in sight. */
  readonly near: boolean
  readonly onGo: (step: number) => void
  readonly onWish: (step: number, fade: number) => void
  /** The bars that are played round, by their numbers. */
  readonly loop: { readonly from: number; readonly to: number } | null
  /** The tick that sounds now, from the start of the chart; null while nothing does. */
  readonly music: (() => number | null) | null
}

const OVERVIEW_FROM_BARS = 12
/** The chart as a band in which one says how far out one wants to be, and sees how far one gets, step by step. */
export const RouteBand = ({ chart, steps, current, near, onGo, onWish, loop, music }: Props) => {
  const [scroller, size] = useSize<HTMLDivElement>()
  const changes = newMetres(chart)
  const bars = new Map(chart.bars.map((b) => [b.number, b]))
  const lengths = steps.map((s) => s.beats * beatTicks((bars.get(s.bar) ?? chart).metre))
  const { width, boxes, fits } = layoutBand(
    lengths.map((l) => l / beatTicks(chart.metre)),
    size?.w ?? null,
    !near,
  )
  const isShort = useShort()
  const sizes = BAND_SIZES[near || fits || size === null ? 'near' : 'whole'][isShort ? 'short' : 'tall']
  const fadeY = (fade: number): number => fadeYOf(sizes, fade)
  const [x, w] = [boxes[current]?.x ?? 0, boxes[current]?.w ?? 0]
  const looped = boxes.filter((_, i) => loop && (steps[i]?.bar ?? 0) >= loop.from && (steps[i]?.bar ?? 0) <= loop.to)
  useInSight(scroller, { x, w })
  return (
    <div className={styles.frame}>
      {near && !fits && chart.bars.length > OVERVIEW_FROM_BARS && (
        <svg
          className={styles.overview}
          viewBox={`0 ${sizes.top} ${width} ${sizes.rise}`}
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          <rect className={styles.seen} x={x} y={sizes.top} width={w} height={sizes.rise} />
          {steps.map((s, i) => {
            const box = boxes[i]
            const fade = s.reading?.fade ?? s.wished
            return (
              box && (
                <rect
                  key={`${s.bar} ${s.beat}`}
                  className={`${styles.got} ${hueClass(fade)}`}
                  x={box.x}
                  width={box.w}
                  y={fadeY(fade)}
                  height={Math.max(3, sizes.home - fadeY(fade))}
                />
              )
            )
          })}
        </svg>
      )}
      <div ref={scroller} className={styles.scroller}>
        <svg role="list" aria-label="Strip" className={styles.band} width={width} height={sizes.height}>
          <line className={styles.homeLine} x1={0} x2="100%" y1={sizes.home} y2={sizes.home} aria-hidden="true" />
          {steps.map((s, i) => {
            const box = boxes[i]
            const first = i === 0 || steps[i - 1]?.bar !== s.bar
            const metre = changes.get(s.bar)
            const words = [bars.get(s.bar)?.section, metre && metreName(metre)]
            return (
              box && (
                <Step
                  key={`${s.bar} ${s.beat}`}
                  step={s}
                  sizes={sizes}
                  {...box}
                  first={first}
                  section={first ? words.filter(Boolean).join(' ') || null : null}
                  here={i === current}
                  onGo={() => onGo(i)}
                  onWish={(fade) => onWish(i, fade)}
                />
              )
            )
          })}
          {steps.map((s, i) => {
            const box = boxes[i]
            if (!box || s.seam === null || !sizes.named) return null
            const chip = 14 + s.seam.length * 9
            return (
              <g key={`${s.bar} ${s.beat}`} aria-hidden="true">
                <rect
                  className={s.turns ? styles.turn : styles.chip}
                  x={box.x + box.w - chip / 2}
                  y={sizes.seam}
                  width={chip}
                  height={SEAM_HEIGHT}
                  rx={5}
                />
                <text className={styles.chipText} x={box.x + box.w} y={sizes.seam + 17}>
                  {s.seam}
                </text>
              </g>
            )
          })}
          <path className={styles.loop} d={loopPath(looped[0], looped.at(-1))} aria-hidden="true" />
          {music && (
            <Playhead
              now={music}
              xAt={(tick) => xOfTick(boxes, lengths, tick)}
              top={sizes.top - 8}
              bottom={sizes.home + 10}
            />
          )}
        </svg>
      </div>
    </div>
  )
}
