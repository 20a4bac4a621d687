import { type PointerEvent, useState } from 'react'
import { type Reading, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { MULTIPLE, MultipleMarks } from './Multiple.tsx'
import styles from './RouteBand.module.css'
import { type BandSizes, fadeAt, fadeY as fadeYOf, nameLines } from './route-band-layout.ts'
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

/** One step: what is wished there, what one gets, and a handle to drag. */
export const Step = ({ step, sizes, x, w, first, section, here, onGo, onWish }: StepProps) => {
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
