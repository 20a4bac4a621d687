import type { Address } from '../state/address/address.ts'
import type { Kept } from '../state/kept/kept.ts'
import type { OpenChart } from '../state/tune/open-chart.ts'

/** What every view is handed. */
export interface ViewProps {
  readonly address: Address
  readonly kept: Kept
  readonly openChart: OpenChart
}
