import { type KeyboardEvent, useRef } from 'react'
import {
  type MapCell,
  PAIR_DISTANCES,
  PAIR_QUALITIES,
  type Place as Spotted,
  toGlyphs,
  type Weights,
} from '../../../core/index.ts'
import { hueClass } from '../../figures/hue.ts'
import { Button } from '../../parts/Button.tsx'
import { copyTable } from '../../state/page/copying.ts'
import { type CellAt, mapFor } from '../../state/pairs/pair-list.ts'
import styles from './PairMap.module.css'

const SHORT: Readonly<Record<string, string>> = {
  '': 'maj',
  'lydian triad': 'lyd',
  'phrygian triad': 'phr',
  'major b5 triad': '♭5',
}
const shortOf = (name: string): string => SHORT[name] ?? name
const longOf = (name: string): string => (name === '' ? 'major' : name === 'm' ? 'minor' : toGlyphs(name))
const APART = ['', '½ step', '1 step', 'min 3', 'maj 3', '4th', 'tritone']

interface Props {
  readonly spot: Spotted
  readonly weights: Weights
  readonly at: CellAt | null
  readonly distance: number
  readonly onGo: (at: CellAt) => void
}

const cellWords = ({ first, second, all }: MapCell): string => {
  const best = all[0]
  const what = `${longOf(first.name)} and ${longOf(second.name)}`
  return best
    ? `${what}: ${toGlyphs(best.overlay().name)}, fade ${best.measured.fade}, lands ${best.measured.landing ?? 'nowhere'}`
    : `${what}: none`
}

/** Every pair of qualities at one root distance; each cell shows its pair that lies furthest in. */
export const PairMap = ({ spot, weights, at, distance, onGo }: Props) => {
  const grid = useRef<HTMLTableElement>(null)
  const map = mapFor(spot, distance, weights)
  const here = at?.distance === distance ? at : { distance, row: 0, column: 0 }
  const walk = (e: KeyboardEvent<HTMLTableElement>) => {
    if (e.shiftKey || e.ctrlKey || e.metaKey || e.altKey) return
    const steps: Readonly<Record<string, readonly [number, number]>> = {
      ArrowRight: [0, 1],
      ArrowLeft: [0, -1],
      ArrowDown: [1, 0],
      ArrowUp: [-1, 0],
    }
    const step = steps[e.key]
    const digit = /^Digit([1-6])$/.exec(e.code)?.[1]
    if (!step && !digit) return
    e.preventDefault()
    e.stopPropagation()
    const last = PAIR_QUALITIES.length - 1
    const to = {
      distance: digit ? Number(digit) : distance,
      row: Math.max(0, Math.min(last, here.row + (step?.[0] ?? 0))),
      column: Math.max(0, Math.min(last, here.column + (step?.[1] ?? 0))),
    }
    onGo(to)
    grid.current?.querySelector<HTMLElement>(`[data-cell="${to.row} ${to.column}"]`)?.focus()
  }
  const text = () => ({
    title: `Pairs ${APART[distance]} apart over ${spot.chord.symbol}`,
    heads: ['Lower', 'Upper', 'Furthest in', 'Fade', 'Lands'],
    rows: map.flat().flatMap((c) => {
      const best = c.all[0]
      return best
        ? [
            [
              longOf(c.first.name),
              longOf(c.second.name),
              best.overlay().name,
              String(best.measured.fade),
              String(best.measured.landing ?? '–'),
            ],
          ]
        : []
    }),
  })
  return (
    <section className={styles.map} aria-label="Pair map">
      <div className={styles.distances} role="group" aria-label="Root distance">
        {PAIR_DISTANCES.map((d) => (
          <Button key={d} pressed={d === distance} onClick={() => onGo({ ...here, distance: d })}>
            {APART[d]}
          </Button>
        ))}
      </div>
      <table ref={grid} role="grid" aria-label="Pairs by quality" className={styles.grid} onKeyDown={walk}>
        <thead>
          <tr>
            <td className={styles.corner}>lower, upper →</td>
            {PAIR_QUALITIES.map((q) => (
              <th key={q.name} scope="col">
                {shortOf(q.name)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {map.map((cells, row) => (
            <tr key={cells[0]?.first.name}>
              <th scope="row">{shortOf(cells[0]?.first.name ?? '')}</th>
              {cells.map((cell, column) => {
                const best = cell.all[0]
                const now = at?.distance === distance && at.row === row && at.column === column
                return (
                  <td key={cell.second.name}>
                    <button
                      type="button"
                      data-cell={`${row} ${column}`}
                      tabIndex={row === here.row && column === here.column ? 0 : -1}
                      disabled={!best}
                      aria-pressed={now}
                      aria-label={cellWords(cell)}
                      className={`${styles.cell} ${now ? styles.now : ''} ${hueClass(best?.measured.fade ?? 0)}`}
                      onClick={() => onGo({ distance, row, column })}
                    >
                      <svg className={styles.rise} viewBox="0 0 6 100" preserveAspectRatio="none" aria-hidden="true">
                        <rect y={100 - (best?.measured.fade ?? 0)} width={6} height={best?.measured.fade ?? 0} />
                      </svg>
                      <strong>{best?.measured.fade ?? ''}</strong>
                      <small>{best?.measured.landing ?? ''}</small>
                    </button>
                  </td>
                )
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className={styles.hint}>
        Fade above, landing below, of the pair furthest in.{' '}
        <Button onClick={() => void copyTable(text())}>Copy as text</Button>
      </p>
    </section>
  )
}
