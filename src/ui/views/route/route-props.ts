import type { RouteReport } from '../../../core/index.ts'
import type { Planning } from '../../state/route/planning.ts'
import type { RouteModel, ShownStep } from '../../state/route/route-model.ts'
import type { ViewProps } from '../view.ts'

/** What every part of the Route view is handed. `route` is the chain in view, null where the route in hand is; `steps` what the band shows. */
export interface RouteProps extends ViewProps {
  readonly model: RouteModel
  readonly planning: Planning
  readonly route: RouteReport | null
  readonly steps: readonly ShownStep[]
}
