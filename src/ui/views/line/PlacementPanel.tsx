import { barsAt, beatTicks, GRIDS, type Grid } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { changeLine, moveLine, quantiseLine } from '../../state/line/lines.ts'
import { useOver } from '../overlay/use-over.ts'
import { GRID_WORDS } from './grid-words.ts'
import type { SideProps } from './LineSides.tsx'
import styles from './LineView.module.css'

/** Where a line lies over its chart, which can be mended after it was kept; its grid, and the route it was planned by. */
export const PlacementPanel = ({ lineAnalysis, row, notes }: SideProps) => {
  const { rows: own } = useOver('routes', row.chartId)
  const { chart, audit } = lineAnalysis
  const form = audit.timeline.length
  const first = notes[0]?.at ?? 0
  const bars = barsAt(chart)
  const chorus = form > 0 ? Math.floor(first / form) : 0
  const bar = bars.find((b) => first - chorus * form < b.to) ?? bars[0]
  const move = (by: number) => moveLine(row, notes, by)
  return (
    <div className={styles.lies}>
      <div className={styles.pair}>
        <Select
          label="Begins in"
          value={String(bar?.number ?? 1)}
          options={bars.map((b) => ({ value: String(b.number), label: `bar ${b.number}` }))}
          onPick={(v) => move((bars.find((b) => b.number === Number(v))?.from ?? 0) - (bar?.from ?? 0))}
        />
        <Select
          label="of chorus"
          value={String(chorus + 1)}
          options={Array.from({ length: Math.max(8, chorus + 1) }, (_, i) => String(i + 1)).map((value) => ({
            value,
            label: value,
          }))}
          onPick={(v) => move((Number(v) - 1 - chorus) * form)}
        />
        <Button title="Its first beat was the one before" onClick={() => move(-beatTicks((bar ?? chart).metre))}>
          ← beat
        </Button>
        <Button title="Its first beat is the next one" onClick={() => move(beatTicks((bar ?? chart).metre))}>
          beat →
        </Button>
      </div>
      {row.played && (
        <Select
          label="Bring it to another grid"
          hint="From how it was played: edits made since are lost, and come back by undo."
          value=""
          options={[
            { value: '' as const, label: 'as it is' },
            ...GRIDS.map((g) => ({ value: g as Grid | '', label: GRID_WORDS[g] })),
          ]}
          onPick={(g) => g !== '' && quantiseLine(row, g)}
        />
      )}
      <Select
        label="Planned by the route"
        value={row.routeId ?? ''}
        options={[{ value: '', label: 'none' }, ...own.map((r) => ({ value: r.id, label: r.name }))]}
        onPick={(id) => changeLine(row, { routeId: id || null }, 'Attached.')}
      />
    </div>
  )
}
