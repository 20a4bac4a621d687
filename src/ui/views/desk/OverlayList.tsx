import { observeElementOffset, useVirtualizer } from '@tanstack/react-virtual'
import { memo, useEffect, useMemo, useRef } from 'react'
import { flushSync } from 'react-dom'
import {
  type FamilyName,
  readOver,
  readOverlay,
  type Place as Spotted,
  toGlyphs,
  type Weights,
} from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { overlayWords } from '../../figures/words.ts'
import type { Ranked } from '../../state/desk/ranking.ts'
import { afterFrame } from '../../state/page/after-frame.ts'
import styles from './LayOver.module.css'

interface RowProps {
  readonly name: string
  readonly family: FamilyName
  readonly also: number
  /** Why teachers show it here, where they do. */
  readonly classic: string | undefined
  readonly place: Spotted
  readonly weights: Weights
}

/** One overlay of the list: its picture, its name, what it is. */
const Row = memo(({ name, family, also, classic, place, weights }: RowProps) => {
  const reading = useMemo(() => {
    const read = readOverlay(name)
    return read.ok ? readOver(read.value, place, weights) : null
  }, [name, place, weights])
  if (!reading) return null
  return (
    <>
      <Multiple reading={reading} />
      <span className={styles.words}>
        <span className={styles.name}>{toGlyphs(name)}</span>
        <span className={styles.what} title={classic && toGlyphs(classic)}>
          {classic ? toGlyphs(classic) : overlayWords(reading.overlay, family, also)}
        </span>
      </span>
      <span className={styles.number}>
        <span className={styles.unseen}>fade </span>
        {reading.fade}
      </span>
      <span className={styles.number}>
        <span className={styles.unseen}>lands </span>
        {reading.landing ?? '–'}
      </span>
    </>
  )
})

interface Props {
  readonly ranking: Ranked
  readonly index: number
  readonly onLay: (name: string) => void
}

const ROW = 48

/** Thousands of overlays, of which only those in view are drawn. */
export const OverlayList = memo(({ ranking, index, onLay }: Props) => {
  const scroller = useRef<HTMLDivElement>(null)
  const tell = useRef<(offset: number, isScrolling: boolean) => void>(undefined)
  const rows = useVirtualizer({
    count: ranking.names.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 2,
    observeElementOffset: (list, onOffset) => {
      tell.current = onOffset
      return observeElementOffset(list, (offset, isScrolling) => {
        if (offset !== list.scrollOffset || !isScrolling) onOffset(offset, isScrolling)
      })
    },
  })
  const question = useRef(ranking)
  // The overlay is seen over its chord first; then the list moves, its new rows drawn before it does.
  useEffect(
    () =>
      afterFrame(() => {
        const isAnew = question.current !== ranking
        question.current = ranking
        const offset = rows.scrollOffset ?? 0
        const height = rows.scrollRect?.height ?? 0
        const start = index * ROW
        const wanted = isAnew ? 0 : Math.max(Math.min(offset, start), start + ROW - height)
        if (!scroller.current || height === 0 || wanted === offset || (index < 0 && !isAnew)) return
        flushSync(() => tell.current?.(wanted, false))
        scroller.current.scrollTop = wanted
      }),
    [ranking, index, rows],
  )
  const idOf = (i: number): string => `overlay-${i}`
  return (
    <div
      ref={scroller}
      className={styles.list}
      role="listbox"
      aria-label="Overlays"
      tabIndex={0}
      aria-activedescendant={index >= 0 ? idOf(index) : undefined}
    >
      <div className={styles.all} style={{ height: rows.getTotalSize() }}>
        {rows.getVirtualItems().map(({ index: i, start }) => {
          const name = ranking.names[i] ?? ''
          return (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the list is walked by the page's own arrow keys
            <div
              key={i}
              id={idOf(i)}
              role="option"
              aria-selected={i === index}
              aria-setsize={ranking.names.length}
              aria-posinset={i + 1}
              className={`${styles.row} ${i === index ? styles.chosen : ''}`}
              style={{ transform: `translateY(${start}px)` }}
              onClick={() => onLay(name)}
            >
              <Row
                name={name}
                family={ranking.families[i] ?? 'mode'}
                also={ranking.also[i] ?? 0}
                classic={ranking.classics[i]}
                place={ranking.place}
                weights={ranking.weights}
              />
            </div>
          )
        })}
      </div>
    </div>
  )
})
