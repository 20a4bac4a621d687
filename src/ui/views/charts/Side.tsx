import type { RefObject } from 'react'
import { Button } from '../../parts/Button.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { CHART_SIDES, type ChartSide } from '../../state/address/parts/charts.ts'
import type { Kept } from '../../state/kept/kept.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import type { Editor } from './editor.ts'
import styles from './Harmony.module.css'
import { Harmony } from './Harmony.tsx'
import { Instead } from './Instead.tsx'
import { Over } from './Over.tsx'

const NAMES: Readonly<Record<ChartSide, string>> = { harmony: 'Harmony', instead: 'Instead', over: 'Laid over' }

interface Props {
  readonly address: Address
  readonly openChart: OpenChart
  readonly kept: Kept
  readonly row: ChartRow | null
  readonly editor: RefObject<Editor | null>
}

/** What stands beside the chart's text. */
export const Side = ({ address, openChart, kept, row, editor }: Props) => (
  <section className={styles.harmony} aria-label={NAMES[address.side]}>
    <div className={styles.sides}>
      {CHART_SIDES.map((side) => (
        <Button key={side} pressed={side === address.side} onClick={() => go({ side })}>
          {NAMES[side]}
        </Button>
      ))}
    </div>
    {address.side === 'harmony' && <Harmony openChart={openChart} />}
    {address.side === 'instead' && <Instead openChart={openChart} editor={row ? editor : null} />}
    {address.side === 'over' && <Over address={address} openChart={openChart} kept={kept} />}
  </section>
)
