import { type KeyboardEvent, memo, useMemo, useRef } from 'react'
import {
  type MapCell,
  PAIR_DISTANCES,
  PAIR_QUALITIES,
  readOver,
  type Place as Spotted,
  toGlyphs,
  type Weights,
} from '../../../core/index.ts'
import { hueClass } from '../../figures/hue.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { type Address, choose } from '../../state/address/address.ts'
import { copyTable } from '../../state/page/copying.ts'
import { bestIn, type CellAt, mapFor } from '../../state/pairs/pair-list.ts'
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

/** The kinds of triad a map begins with: those with names of their own. */
const USUAL_KINDS: readonly string[] = ['', 'm', 'dim', '+', 'sus4']
const SHARED = [
  { value: 'any', label: 'shared notes or none' },
  { value: 'none', label: 'no shared note' },
  { value: 'some', label: 'a shared note' },
] as const

interface Props {
  readonly spot: Spotted
  readonly weights: Weights
  readonly at: CellAt | null
  readonly address: Address
  readonly onGo: (at: CellAt, shared: Address['shared']) => void
}

const cellWords = ({ first, second }: MapCell, best: MapCell['all'][number] | undefined): string => {
  const what = `${longOf(first.name)} and ${longOf(second.name)}`
  return best
    ? `${what}: ${toGlyphs(best.overlay().name)}, fade ${best.measured.fade}, lands ${best.measured.landing ?? 'nowhere'}`
    : `${what}: none`
}

interface CellProps {
  readonly cell: MapCell
  readonly spot: Spotted
  readonly weights: Weights
  readonly shared: Address['shared']
  readonly now: boolean
  readonly tabStop: boolean
  readonly onGo: () => void
}

/** One cell: its pair that lies furthest in, by name, the degrees of either triad, its figures. */
const Cell = memo(({ cell, spot, weights, shared, now, tabStop, onGo }: CellProps) => {
  const best = bestIn(cell, shared)
  const groups = useMemo(
    () =>
      (best?.overlay().groups ?? []).map((g) =>
        readOver(g, spot, weights)
          .notes.map((n) => toGlyphs(n.degree))
          .join(' '),
      ),
    [best, spot, weights],
  )
  return (
    <button
      type="button"
      data-cell={`${cell.first.name} ${cell.second.name}`}
      tabIndex={tabStop ? 0 : -1}
      disabled={!best}
      aria-pressed={now}
      aria-label={cellWords(cell, best)}
      className={`${styles.cell} ${now ? styles.now : ''} ${hueClass(best?.measured.fade ?? 0)}`}
      onClick={onGo}
    >
      <svg className={styles.rise} viewBox="0 0 6 100" preserveAspectRatio="none" aria-hidden="true">
        <rect y={100 - (best?.measured.fade ?? 0)} width={6} height={best?.measured.fade ?? 0} />
      </svg>
      {best && (
        <>
          <span className={styles.name}>{toGlyphs(best.overlay().name)}</span>
          <span className={styles.degrees}>{groups.join(' · ')}</span>
          <small>
            <strong>{best.measured.fade}</strong> lands {best.measured.landing ?? '–'}
          </small>
        </>
      )}
    </button>
  )
})

/** Every pair of the kinds chosen at one root distance; each cell shows its pair that lies furthest in. */
export const PairMap = ({ spot, weights, at, address, onGo }: Props) => {
  const { distance, shared } = address
  const grid = useRef<HTMLTableElement>(null)
  const map = mapFor(spot, distance, weights)
  const kinds = address.kinds ?? USUAL_KINDS
  const shown = PAIR_QUALITIES.flatMap((q, i) => (kinds.includes(q.name) ? [i] : []))
  const own = at?.distance === distance ? at : null
  const here =
    own && shown.includes(own.row) && shown.includes(own.column) ? own : { row: shown[0] ?? 0, column: shown[0] ?? 0 }
  const toggleKind = (name: string) => {
    const then = kinds.includes(name) ? kinds.filter((k) => k !== name) : [...kinds, name]
    if (then.length > 0) choose('the kinds of the map', { kinds: then })
  }
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
    const moved = (from: number, by: number): number =>
      shown[Math.max(0, Math.min(shown.length - 1, shown.indexOf(from) + by))] ?? from
    const to = {
      distance: digit ? Number(digit) : distance,
      row: moved(here.row, step?.[0] ?? 0),
      column: moved(here.column, step?.[1] ?? 0),
    }
    onGo(to, shared)
    const [first, second] = [PAIR_QUALITIES[to.row]?.name, PAIR_QUALITIES[to.column]?.name]
    grid.current?.querySelector<HTMLElement>(`[data-cell="${first} ${second}"]`)?.focus()
  }
  const text = () => ({
    title: `Pairs ${APART[distance]} apart over ${spot.chord.symbol}`,
    heads: ['Lower', 'Upper', 'Furthest in', 'Fade', 'Lands'],
    rows: shown.flatMap((row) =>
      shown.flatMap((column) => {
        const cell = map[row]?.[column]
        const best = cell && bestIn(cell, shared)
        if (!cell || !best) return []
        const { fade, landing } = best.measured
        return [
          [longOf(cell.first.name), longOf(cell.second.name), best.overlay().name, `${fade}`, `${landing ?? '–'}`],
        ]
      }),
    ),
  })
  return (
    <section className={styles.map} aria-label="Pair map">
      <div className={styles.bar} role="group" aria-label="Root distance">
        {PAIR_DISTANCES.map((d) => (
          <Button key={d} pressed={d === distance} onClick={() => onGo({ ...here, distance: d }, shared)}>
            {APART[d]}
          </Button>
        ))}
        <Select
          label="Shared notes"
          labelHidden
          value={shared}
          options={SHARED}
          onPick={(to) => choose('the filter of the map', { shared: to })}
        />
      </div>
      <div className={styles.bar} role="group" aria-label="Kinds">
        {PAIR_QUALITIES.map((q) => (
          <Button key={q.name} pressed={kinds.includes(q.name)} onClick={() => toggleKind(q.name)}>
            {shortOf(q.name)}
          </Button>
        ))}
        <Button onClick={() => void copyTable(text())}>Copy as text</Button>
      </div>
      <div className={styles.scroll}>
        <table ref={grid} role="grid" aria-label="Pairs by quality" className={styles.grid} onKeyDown={walk}>
          <thead>
            <tr>
              <td className={styles.corner}>lower, upper →</td>
              {shown.map((i) => (
                <th key={i} scope="col">
                  {shortOf(PAIR_QUALITIES[i]?.name ?? '')}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((row) => (
              <tr key={row}>
                <th scope="row">{shortOf(PAIR_QUALITIES[row]?.name ?? '')}</th>
                {shown.map((column) => {
                  const cell = map[row]?.[column]
                  return (
                    <td key={column}>
                      {cell && (
                        <Cell
                          cell={cell}
                          spot={spot}
                          weights={weights}
                          shared={shared}
                          now={own?.row === row && own.column === column}
                          tabStop={row === here.row && column === here.column}
                          onGo={() => onGo({ distance, row, column }, shared)}
                        />
                      )}
                    </td>
                  )
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </section>
  )
}
