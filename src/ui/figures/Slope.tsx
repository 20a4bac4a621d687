import { type KeyboardEvent, useMemo, useState } from 'react'
import { type Reading, toGlyphs, triadOf } from '../../core/index.ts'
import { hueClass } from './hue.ts'
import { FILL_OF, NoteTab } from './NoteTab.tsx'
import { type PlayedNow, PlayedTab } from './PlayedTab.tsx'
import styles from './Slope.module.css'
import { useSize } from './size.ts'
import { heightOf, homeOf, layoutSlope, litAt, type Slide, sizesFor, WIDE, widthOf } from './slope-layout.ts'
import { noteLabel } from './words.ts'

interface Props {
  readonly reading: Reading
  /** Index of the note in focus, or null. */
  readonly chosen: number | null
  readonly onChoose: (index: number) => void
  /** Tap or Enter on a note: hear it. */
  readonly onHear: (index: number) => void
  /** 2 for the stand, read from two metres. */
  readonly scale?: number
  /** A note that is played in over this chord lights at its height. */
  readonly played?: PlayedNow | null
}

const EXIT_CLASS = (slide: Slide): string | undefined =>
  slide.exit.how === 'held' ? styles.held : slide.exit.how.startsWith('half') ? styles.halfStep : styles.wholeStep

/** One overlay over one chord: height is how far out, slopes are the ways home. */
export const Slope = ({ reading, chosen, onChoose, onHear, scale = 1, played = null }: Props) => {
  const [focused, setFocused] = useState(false)
  const [box, size] = useSize<HTMLDivElement>()
  const sizes = useMemo(() => (size ? sizesFor(size.w, size.h, scale) : WIDE), [size, scale])
  const layout = useMemo(() => layoutSlope(reading, sizes), [reading, sizes])
  const lit = played && litAt(reading, layout, sizes, played.note)
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
    <div ref={box} className={styles.box}>
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
          {layout.threads.map((d, i) => (
            <path key={d} className={i === 0 ? styles.thread : styles.otherThread} d={d} />
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
            // biome-ignore lint/suspicious/noArrayIndexKey: the next overlay's notes take these tabs over, which draws sooner
            key={i}
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
            <NoteTab
              note={tab.note}
              x={tab.x}
              y={tab.y}
              {...sizes.tab}
              fill={FILL_OF[triadOf(reading, tab.note) ?? 'first']}
              lifted={i === chosen}
              type={sizes.type}
            />
          </g>
        ))}
        <g aria-hidden="true">
          {layout.marks.map((m) => (
            <text key={m.index} className={styles.mark} fontSize={sizes.type.mark} x={m.x} y={m.y + 5}>
              {m.text}
            </text>
          ))}
          {played && lit && <PlayedTab played={played} {...lit} {...sizes.tab} home={home} />}
        </g>
      </svg>
    </div>
  )
}
