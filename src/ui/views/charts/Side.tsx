import type { RefObject } from 'react'
import { Button } from '../../parts/Button.tsx'
import type { Desk } from '../../stores/desk.ts'
import type { Kept } from '../../stores/kept.ts'
import { CHART_SIDES, type ChartSide, go, type Place } from '../../stores/place.ts'
import type { ChartRow } from '../../stores/rows.ts'
import type { Editor } from './editor.ts'
import styles from './Harmony.module.css'
import { Harmony } from './Harmony.tsx'
import { Instead } from './Instead.tsx'
import { Over } from './Over.tsx'

const NAMES: Readonly<Record<ChartSide, string>> = { harmony: 'Harmony', instead: 'Instead', over: 'Laid over' }

interface Props {
  readonly place: Place
  readonly desk: Desk
  readonly kept: Kept
  readonly row: ChartRow | null
  readonly editor: RefObject<Editor | null>
}

/** What stands beside the chart's text. */
export const Side = ({ place, desk, kept, row, editor }: Props) => (
  <section className={styles.harmony} aria-label={NAMES[place.side]}>
    <div className={styles.sides}>
      {CHART_SIDES.map((side) => (
        <Button key={side} pressed={side === place.side} onClick={() => go({ side })}>
          {NAMES[side]}
        </Button>
      ))}
    </div>
    {place.side === 'harmony' && <Harmony desk={desk} />}
    {place.side === 'instead' && <Instead desk={desk} editor={row ? editor : null} />}
    {place.side === 'over' && <Over place={place} desk={desk} kept={kept} />}
  </section>
)
