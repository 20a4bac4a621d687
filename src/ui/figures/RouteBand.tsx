import { type PointerEvent, useState } from 'react'
import { beatTicks, type Chart, type Reading, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { MULTIPLE, MultipleMarks } from './Multiple.tsx'
import { Playhead } from './Playhead.tsx'
import styles from './RouteBand.module.css'
import {
  BAND_SIZES,
  type BandSizes,
  fadeAt,
  fadeY as fadeYOf,
  layoutBand,
  nameLines,
  SEAM_HEIGHT,
} from './route-band-layout.ts'
import { useShort } from './short.ts'
import { useInSight } from './sight.ts'
import { useSize } from './size.ts'
import { loopPath, xOfTick } from './strip-layout.ts'
import { beatText } from './words.ts'

/** One step of the band. */
export interface BandStep {
  readonly bar: number
  readonly beat: number
  readonly beats: number
  readonly chord: string
  readonly wished: number
  readonly overlay: string | null
  readonly reading: Reading | null
  readonly locked: boolean
  /** Whether it goes on with the overlay of the step before. */
  readonly carries: boolean
  /** What the seam into the next step says; null at the end. */
  readonly seam: string | null
  /** Whether the next seam turns the way the set goes. */
  readonly turns: boolean
}

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
const STEP = 5
const STILL = 4
/** What a letter of a symbol takes, and what stands free beside it. */
const SIGN = 12.5
const BESIDE = 10
/** A step of fewer px has no room for figures. */
const NARROW = 40
/** Of narrow bars every so manyth is numbered. */
const BARS_BETWEEN = 4

const nameOf = (s: BandStep): string => `bar ${s.bar}, beat ${beatText(s.beat)}, ${toGlyphs(s.chord)}`
const valueText = (s: BandStep): string =>
  [
    `wished ${s.wished}`,
    ...(s.overlay && s.reading ? [`${toGlyphs(s.overlay)}, fade ${s.reading.fade}`] : ['nothing yet']),
    ...(s.locked ? ['locked'] : []),
  ].join(', ')

interface StepProps {
  readonly step: BandStep
  readonly sizes: BandSizes
  readonly x: number
  readonly w: number
  readonly first: boolean
  readonly section: string | null
  readonly here: boolean
  readonly onGo: () => void
  readonly onWish: (fade: number) => void
}

/** What is laid at a step, by name, under the band. */
const Named = ({ step, sizes, x }: Pick<StepProps, 'step' | 'sizes' | 'x'>) => {
  const [strong, soft] = nameLines(toGlyphs(step.overlay ?? ''))
  return (
    <>
      <line className={styles.side} x1={x} x2={x} y1={sizes.number + 8} y2={sizes.seam - 6} />
      {step.carries ? (
        <text className={styles.soft} x={x + 10} y={sizes.name}>
          goes on
        </text>
      ) : (
        <>
          <text className={styles.name} x={x + 10} y={sizes.name}>
            {strong}
          </text>
          <text className={styles.soft} x={x + 10} y={sizes.name + 17}>
            {soft}
          </text>
        </>
      )}
    </>
  )
}

const Step = ({ step, sizes, x, w, first, section, here, onGo, onWish }: StepProps) => {
  const fadeY = (fade: number): number => fadeYOf(sizes, fade)
  const [dragged, setDragged] = useState<{ readonly from: number; readonly fade: number } | null>(null)
  const wished = dragged?.fade ?? step.wished
  const { reading } = step
  const heightAt = (e: PointerEvent<SVGElement>): number =>
    e.clientY - (e.currentTarget.ownerSVGElement?.getBoundingClientRect().top ?? 0)
  const start = (e: PointerEvent<SVGElement>) => {
    e.currentTarget.setPointerCapture(e.pointerId)
    setDragged({ from: e.clientY, fade: step.wished })
  }
  const move = (e: PointerEvent<SVGElement>) => {
    if (dragged && Math.abs(e.clientY - dragged.from) > STILL)
      setDragged({ ...dragged, fade: fadeAt(sizes, heightAt(e)) })
  }
  const end = () => {
    if (dragged && dragged.fade !== step.wished) onWish(dragged.fade)
    setDragged(null)
  }
  const scale = Math.min(1.25, (w - 16) / MULTIPLE.w)
  const inset = w < NARROW ? 1 : 6
  return (
    <g role="listitem">
      <g
        role="slider"
        tabIndex={here ? 0 : -1}
        aria-label={nameOf(step)}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={wished}
        aria-valuetext={valueText(step)}
        aria-orientation="vertical"
        aria-current={here ? 'step' : undefined}
        className={`${styles.step} ${here ? styles.here : ''}`}
        onClick={onGo}
        onKeyDown={(e) => {
          const by = { ArrowUp: STEP, ArrowDown: -STEP }[e.key]
          if (by === undefined || e.ctrlKey || e.metaKey || e.altKey) return
          e.preventDefault()
          e.stopPropagation()
          onWish(Math.max(0, Math.min(100, step.wished + by)))
        }}
      >
        <rect className={styles.ground} x={x} y={0} width={w} height={sizes.height} />
        {(here || w >= step.chord.length * SIGN + BESIDE) && (
          <text className={styles.symbol} x={Math.max(4, x + (w < NARROW ? 1 : 7))} y={sizes.symbols}>
            {toGlyphs(step.chord)}
          </text>
        )}
        {reading && (
          <>
            <rect
              className={`${styles.got} ${hueClass(reading.fade)}`}
              x={x + 1}
              y={fadeY(reading.fade)}
              width={w - 2}
              height={Math.max(2, sizes.home - fadeY(reading.fade))}
            />
            {w >= NARROW && !(here && w < 2 * NARROW) && (
              <text className={styles.figure} x={x + w - 7} y={Math.min(fadeY(reading.fade), fadeY(wished)) - 7}>
                {reading.fade}
              </text>
            )}
          </>
        )}
        <path className={styles.wish} d={`M${x + inset},${fadeY(wished)} H${x + w - inset}`} />
        {w >= NARROW && (
          <path
            className={styles.grip}
            d={`M${x + w / 2 - 8},${fadeY(wished) - 6} v12 M${x + w / 2 + 8},${fadeY(wished) - 6} v12`}
          />
        )}
        {(here || (dragged && dragged.fade !== step.wished)) && (
          <text className={styles.wished} x={x + inset} y={fadeY(wished) - 7}>
            {wished}
          </text>
        )}
        <rect
          className={styles.handle}
          x={x}
          y={sizes.top - 14}
          width={w}
          height={sizes.rise + 18}
          onPointerDown={start}
          onPointerMove={move}
          onPointerUp={end}
          onPointerCancel={() => setDragged(null)}
        />
        {first && (
          <>
            <line className={styles.barLine} x1={x} x2={x} y1={sizes.home} y2={sizes.home + 9} />
            {(w >= NARROW || section !== null || step.bar % BARS_BETWEEN === 1) && (
              <text className={styles.number} x={x + (w < NARROW ? 2 : 7)} y={sizes.number}>
                {step.bar}
                {section && w >= 2 * NARROW ? ` ${section}` : ''}
              </text>
            )}
          </>
        )}
        {sizes.named && <Named step={step} sizes={sizes} x={x} />}
        {step.locked && w >= NARROW && (
          <path
            className={styles.lock}
            d={`M${x + w - 20},${(sizes.named ? sizes.name : sizes.number) - 6} h12 v9 h-12 z m2.5,0 v-3 a3.5,3.5 0 0 1 7,0 v3`}
          />
        )}
        {reading && sizes.shape !== null && (
          <g transform={`translate(${x + 9} ${sizes.shape}) scale(${scale} 1.25)`}>
            <MultipleMarks reading={reading} />
          </g>
        )}
      </g>
    </g>
  )
}

/** The chart as a band in which one says how far out one wants to be, and sees how far one gets, step by step. */
export const RouteBand = ({ chart, steps, current, near, onGo, onWish, loop, music }: Props) => {
  const [scroller, size] = useSize<HTMLDivElement>()
  const { width, boxes, fits } = layoutBand(
    steps.map((s) => s.beats),
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
            return (
              box && (
                <Step
                  key={`${s.bar} ${s.beat}`}
                  step={s}
                  sizes={sizes}
                  {...box}
                  first={first}
                  section={first ? (chart.bars.find((b) => b.number === s.bar)?.section ?? null) : null}
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
              xAt={(tick) =>
                xOfTick(
                  boxes,
                  steps.map((s) => s.beats * beatTicks(chart.metre)),
                  tick,
                )
              }
              top={sizes.top - 8}
              bottom={sizes.home + 10}
            />
          )}
        </svg>
      </div>
    </div>
  )
}
