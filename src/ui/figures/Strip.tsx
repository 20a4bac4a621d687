import { memo, useMemo, useRef } from 'react'
import { barTicks, beatTicks, type Chain, type Chart, metreName, newMetres, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { furthestOut, useInView } from './in-view.ts'
import { Playhead } from './Playhead.tsx'
import styles from './Strip.module.css'
import { useShort } from './short.ts'
import { useInSight } from './sight.ts'
import {
  LOW_STRIP,
  layoutBrackets,
  layoutStrip,
  loopPath,
  STRIP,
  type StripBox,
  type StripSizes,
  type StripSpot,
  xOfTick,
} from './strip-layout.ts'
import { beatText } from './words.ts'

interface Props {
  readonly chart: Chart
  readonly spots: readonly StripSpot[]
  readonly current: number
  readonly chains?: readonly Chain[]
  readonly onGo: (spot: StripSpot) => void
  /** The bars that are played round, by their numbers. */
  readonly loop?: { readonly from: number; readonly to: number } | null
  /** The tick that sounds now, from the start of the chart; null while nothing does. */
  readonly music?: (() => number | null) | null
}

const OVERVIEW_FROM_BARS = 12
/** A strip of more chords is drawn only where it is in sight. */
const WINDOWED_FROM = 600

const itemName = (s: StripSpot): string =>
  `bar ${s.spot.bar}, beat ${beatText(s.beat)}, ${toGlyphs(s.spot.chord.symbol)}`

interface SpotProps extends StripBox {
  readonly spot: StripSpot
  readonly of: number
  readonly sizes: StripSizes
  readonly section: string | null
  /** The metre that begins with it, where it is another one. */
  readonly metre: string | null
  readonly here: boolean
  /** Whether it is longer than a bar. */
  readonly whole: boolean
  readonly onGo: (spot: StripSpot) => void
}

/** One chord of the strip; drawn anew only where something of it changed. */
const Spot = memo(({ spot: s, x, w, fade, path, of, sizes, section, metre, here, whole, onGo }: SpotProps) => (
  <g role="listitem" aria-label={itemName(s)} aria-setsize={of} aria-posinset={s.index + 1}>
    <g
      role="button"
      tabIndex={here ? 0 : -1}
      aria-label={itemName(s)}
      aria-current={here ? 'true' : undefined}
      className={`${styles.spot} ${here ? styles.here : ''} ${hueClass(fade)}`}
      onClick={() => onGo(s)}
      onKeyDown={(e) => {
        if (e.key === 'Enter' || e.key === ' ') {
          e.preventDefault()
          e.stopPropagation()
          onGo(s)
        }
      }}
    >
      <rect className={styles.ground} x={x} y={0} width={w} height={sizes.height} />
      <path className={styles.step} d={path} />
      <text className={styles.symbol} x={x + 7} y={sizes.symbols - 6}>
        {toGlyphs(s.spot.chord.symbol)}
      </text>
      {s.spot.at === 0 && (
        <>
          <line className={styles.barLine} x1={x} x2={x} y1={sizes.home} y2={sizes.home + 9} />
          <text className={styles.number} x={x + 7} y={sizes.home + 19}>
            {s.spot.bar}
            {section ? ` ${section}` : ''}
            {metre ? ` ${metre}` : ''}
          </text>
        </>
      )}
      {s.by !== 'home' && !whole && <path className={styles.laid} d={`M${x + 8},${sizes.symbols + 1} h22`} />}
    </g>
  </g>
))

/** The chart as one band: each chord as wide as its beats, its fade as a step, its landing as the slope down. */
export const Strip = ({ chart, spots, current, chains = [], onGo, loop = null, music = null }: Props) => {
  const scroller = useRef<HTMLDivElement>(null)
  const sizes = useShort() ? LOW_STRIP : STRIP
  const beat = beatTicks(chart.metre)
  const layout = useMemo(() => layoutStrip(spots, (s) => s.spot.length / beat, sizes), [spots, beat, sizes])
  const brackets = useMemo(() => layoutBrackets(chains, layout.boxes, sizes), [chains, layout, sizes])
  const sections = useMemo(() => new Map(chart.bars.map((b) => [b.number, b.section])), [chart])
  const metres = useMemo(() => newMetres(chart), [chart])
  const here = layout.boxes[current]
  const [x, w] = [here?.x ?? 0, here?.w ?? 0]
  useInSight(scroller, { x, w, always: true })
  const isSeen = useInView(scroller, spots.length > WINDOWED_FROM, x)
  const lengths = spots.map((s) => s.spot.length)
  const inLoop = loop ? spots.filter((s) => s.spot.bar >= loop.from && s.spot.bar <= loop.to) : []
  return (
    <div className={styles.frame}>
      {chart.bars.length > OVERVIEW_FROM_BARS && (
        <svg
          className={styles.overview}
          viewBox={`0 ${sizes.top} ${layout.width} ${sizes.rise}`}
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          <rect className={styles.seen} x={x} y={sizes.top} width={w} height={sizes.rise} />
          {furthestOut(layout.boxes.map((b) => b.fade)).map((i) => {
            const box = layout.boxes[i]
            return box && <path key={box.x} className={`${styles.step} ${hueClass(box.fade)}`} d={box.path} />
          })}
        </svg>
      )}
      <div ref={scroller} className={styles.scroller}>
        <svg role="list" aria-label="Strip" className={styles.strip} width={layout.width} height={sizes.height}>
          <line className={styles.homeLine} x1={0} x2="100%" y1={sizes.home} y2={sizes.home} aria-hidden="true" />
          {spots.map((s, i) => {
            const box = layout.boxes[i]
            if (!box || (i !== current && !isSeen(box.x, box.w))) return null
            const metre = s.spot.at === 0 ? metres.get(s.spot.bar) : undefined
            const section = s.spot.at === 0 ? sections.get(s.spot.bar) : null
            return (
              <Spot
                key={s.index}
                spot={s}
                {...box}
                of={spots.length}
                sizes={sizes}
                section={section ?? null}
                metre={metre ? metreName(metre) : null}
                here={i === current}
                whole={s.spot.length > barTicks(s.spot.metre)}
                onGo={onGo}
              />
            )
          })}
          <path
            className={styles.loop}
            d={loopPath(layout.boxes[inLoop[0]?.index ?? -1], layout.boxes[inLoop.at(-1)?.index ?? -1])}
            aria-hidden="true"
          />
          {music && (
            <Playhead
              now={music}
              xAt={(tick) => xOfTick(layout.boxes, lengths, tick)}
              top={sizes.symbols + 2}
              bottom={sizes.home + 10}
            />
          )}
          {brackets
            .filter((b) => isSeen(b.x, b.w))
            .map((b) => (
              <path
                key={b.path}
                className={b.arrives ? styles.bracket : styles.openBracket}
                d={b.path}
                aria-hidden="true"
              />
            ))}
        </svg>
      </div>
    </div>
  )
}
