import { type KeyboardEvent, useMemo, useState, useSyncExternalStore } from 'react'
import { type Reading, toGlyphs } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import styles from './Slope.module.css'
import {
  heightOf,
  homeOf,
  layoutSlope,
  NARROW,
  type Slide,
  type SlopeSizes,
  type TabBox,
  WIDE,
  widthOf,
} from './slope-layout.ts'
import { tabLook, tabPath } from './tab-shape.ts'
import { noteLabel } from './words.ts'

const NARROW_SCREEN = '(max-width: 560px)'
const useNarrow = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      const query = matchMedia(NARROW_SCREEN)
      query.addEventListener('change', changed)
      return () => query.removeEventListener('change', changed)
    },
    () => matchMedia(NARROW_SCREEN).matches,
    () => false,
  )

interface Props {
  readonly reading: Reading
  /** Index of the note in focus, or null. */
  readonly chosen: number | null
  readonly onChoose: (index: number) => void
  /** Tap or Enter on a note: hear it. */
  readonly onHear: (index: number) => void
}

const EXIT_CLASS = (slide: Slide): string | undefined =>
  slide.exit.how === 'held' ? styles.held : slide.exit.how.startsWith('half') ? styles.halfStep : styles.wholeStep

const Tab = ({
  tab,
  lifted,
  sizes,
}: {
  readonly tab: TabBox
  readonly lifted: boolean
  readonly sizes: SlopeSizes
}) => {
  const { note, x, y } = tab
  const { w, h } = sizes.tab
  const middle = x + w / 2
  const look = tabLook(note)
  return (
    <>
      <path className={styles.tab} d={tabPath(look, x, y, w, h)} />
      {look.doubled && <path className={styles.double} d={`M${x + 4},${y + 5} H${x + w - 4}`} />}
      {lifted && <rect className={styles.focus} x={x - 4} y={y - 4} width={w + 8} height={h + 8} rx={3} />}
      <text className={styles.name} fontSize={sizes.type.name} x={middle} y={y + h * 0.53}>
        {toGlyphs(note.note.name)}
      </text>
      <text className={styles.degree} fontSize={sizes.type.degree} x={middle} y={y + h * 0.89}>
        {toGlyphs(note.degree)}
      </text>
    </>
  )
}

/** One overlay over one chord: height is how far out, slopes are the ways home. */
export const Slope = ({ reading, chosen, onChoose, onHear }: Props) => {
  const [focused, setFocused] = useState(false)
  const sizes = useNarrow() ? NARROW : WIDE
  const layout = useMemo(() => layoutSlope(reading, sizes), [reading, sizes])
  const home = homeOf(sizes)
  const ground = home + sizes.gap
  const { next, chord } = reading.place
  const tabStop = chosen ?? 0
  // Left to right as seen, which is not the formula's order.
  const order = layout.tabs.map((_, i) => i).sort((a, b) => (layout.tabs[a]?.x ?? 0) - (layout.tabs[b]?.x ?? 0))
  const walk = (event: KeyboardEvent<SVGSVGElement>) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key]
    const at = order.indexOf(tabStop)
    const to = event.key === 'Home' ? 0 : event.key === 'End' ? order.length - 1 : by === undefined ? null : at + by
    if (to === null || event.ctrlKey || event.metaKey || event.altKey) return
    event.preventDefault()
    event.stopPropagation()
    const index = order[Math.max(0, Math.min(order.length - 1, to))] ?? 0
    onChoose(index)
    event.currentTarget.querySelector<SVGGElement>(`[data-note="${index}"]`)?.focus()
  }
  return (
    <svg
      role="group"
      aria-label="Slope"
      className={styles.slope}
      viewBox={`0 0 ${widthOf(sizes)} ${heightOf(sizes)}`}
      onKeyDown={walk}
      onFocus={() => setFocused(true)}
      onBlur={() => setFocused(false)}
    >
      <g aria-hidden="true">
        {layout.columns.map((c) => (
          <g key={c.x}>
            {c.own && (
              <rect
                className={styles.band}
                x={c.x - sizes.column / 2}
                y={sizes.top - 12}
                width={sizes.column}
                height={home - sizes.top + 12}
              />
            )}
            <text className={c.own ? styles.ownColumn : styles.column} fontSize={sizes.type.degree} x={c.x} y={18}>
              {toGlyphs(c.degree)}
            </text>
          </g>
        ))}
        {[25, 50, 75, 100].map((fade) => (
          <line
            key={fade}
            className={styles.grid}
            x1={sizes.half}
            x2={widthOf(sizes) - sizes.half}
            y1={home - (fade / 100) * sizes.plot}
            y2={home - (fade / 100) * sizes.plot}
          />
        ))}
        <line className={styles.home} x1={0} x2={widthOf(sizes)} y1={home} y2={home} />
        {layout.slides
          .filter((s) => s.best || (focused && s.index === chosen))
          .map((s) => (
            <path
              key={`${s.index} ${s.exit.how}`}
              className={`${styles.slide} ${EXIT_CLASS(s)} ${s.best ? '' : styles.otherExit} ${hueClass(layout.tabs[s.index]?.note.fade ?? 0)}`}
              d={s.path}
            />
          ))}
        {layout.stubs.map(({ x, y }) => (
          <path key={x} className={styles.stub} d={`M${x},${y} V${y + 14} M${x - 7},${y + 14} H${x + 7}`} />
        ))}
        {layout.targets.map((t) => (
          <g key={t.x}>
            <rect
              className={t.guide ? styles.guideTarget : styles.target}
              x={t.x}
              y={ground}
              width={t.w}
              height={sizes.target.h}
              rx={2}
            />
            <text
              className={styles.targetName}
              fontSize={Math.max(13, sizes.type.name - 1)}
              x={t.x + t.w / 2}
              y={ground + sizes.target.h * 0.43}
            >
              {toGlyphs(t.name)}
            </text>
            <text
              className={styles.targetDegree}
              fontSize={Math.max(13, sizes.type.degree - 0.5)}
              x={t.x + t.w / 2}
              y={ground + sizes.target.h * 0.85}
            >
              {toGlyphs(t.degree)}
            </text>
          </g>
        ))}
        {next === null && (
          <text className={styles.nothing} x={widthOf(sizes) / 2} y={ground + 22}>
            No next chord, so no way home is drawn. Add one: … over {toGlyphs(chord.symbol)} to …
          </text>
        )}
      </g>
      {layout.tabs.map((tab, i) => (
        <g
          key={tab.note.note.name}
          data-note={i}
          role="button"
          tabIndex={i === tabStop ? 0 : -1}
          aria-label={noteLabel(tab.note)}
          className={`${styles.note} ${hueClass(tab.note.fade)}`}
          onClick={() => {
            onChoose(i)
            onHear(i)
          }}
          onFocus={() => onChoose(i)}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' && e.key !== ' ') return
            e.preventDefault()
            e.stopPropagation()
            onHear(i)
          }}
        >
          <Tab tab={tab} lifted={i === chosen} sizes={sizes} />
        </g>
      ))}
      <g aria-hidden="true">
        {layout.marks.map((m) => (
          <text key={m.index} className={styles.mark} fontSize={sizes.type.mark} x={m.x} y={m.y + 5}>
            {m.text}
          </text>
        ))}
      </g>
    </svg>
  )
}
