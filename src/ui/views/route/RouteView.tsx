import { useStore } from '@nanostores/react'
import { useEffect, useMemo } from 'react'
import { RouteBand } from '../../figures/RouteBand.tsx'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import { ROUTE_PANELS, type RoutePanel } from '../../state/address/parts/route.ts'
import { $planning, planFor } from '../../state/route/planning.ts'
import { bandOf, pickInView, routeModel, stepsInView } from '../../state/route/route-model.ts'
import { goToSlot, setWish } from '../../state/route/steering.ts'
import { $playing, musicTick } from '../../state/sound/playing.ts'
import { NoChart } from '../overlay/NoChart.tsx'
import type { ViewProps } from '../view.ts'
import { Chains } from './Chains.tsx'
import { KeptRoutes } from './KeptRoutes.tsx'
import { Recipes } from './Recipes.tsx'
import styles from './RouteView.module.css'
import { Rules } from './Rules.tsx'
import type { RouteProps } from './route-props.ts'
import { SeamPanel } from './SeamPanel.tsx'
import { StepPanel } from './StepPanel.tsx'
import { WishBar } from './WishBar.tsx'

const NAMES: Readonly<Record<RoutePanel, string>> = {
  step: 'Step',
  rules: 'Rules',
  recipes: 'Recipes',
  seam: 'Seam',
  kept: 'Kept',
}

const PANELS = { step: StepPanel, rules: Rules, recipes: Recipes, seam: SeamPanel, kept: KeptRoutes } as const

const Side = (props: RouteProps) => {
  const Panel = PANELS[props.address.panel]
  return (
    <section className={styles.side} aria-label={NAMES[props.address.panel]}>
      <div className={styles.tabs}>
        {ROUTE_PANELS.map((panel) => (
          <Button key={panel} pressed={panel === props.address.panel} onClick={() => go({ panel })}>
            {NAMES[panel]}
          </Button>
        ))}
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys */}
      <div className={styles.panel} tabIndex={0}>
        <Panel {...props} />
      </div>
    </section>
  )
}

/** Route: how far out to be at each step, the ranked chains of overlays that come nearest, and the way through them. */
const RouteView = ({ address, kept, openChart }: ViewProps) => {
  const planning = useStore($planning)
  const playing = useStore($playing)
  const model = useMemo(() => routeModel(address, openChart, kept.route), [address, openChart, kept.route])
  useEffect(() => {
    if (model && model.slots.length > 0) void planFor(address, kept, openChart, model)
  }, [address, kept, openChart, model])
  if (!model || !openChart.chart || model.slots.length === 0)
    return (
      <div className={styles.empty}>
        {openChart.chart ? (
          <p role="status">There is no chord in these bars.</p>
        ) : (
          <NoChart kept={kept} openChart={openChart} />
        )}
      </div>
    )
  const pick = pickInView(address, openChart)
  const route = pick === null ? null : (planning.routes[pick] ?? planning.routes[0] ?? null)
  const steps = stepsInView(model, address, kept, openChart, route)
  const props: RouteProps = { address, kept, openChart, model, planning, route, steps }
  const { chart } = openChart
  return (
    <div className={styles.view}>
      <WishBar {...props} />
      <RouteBand
        chart={chart}
        steps={bandOf(steps)}
        current={model.current?.index ?? 0}
        onGo={(i) => model.slots[i] && goToSlot(model.slots[i])}
        onWish={(i, fade) => model.slots[i] && setWish(model.slots[i], fade)}
        near={address.near}
        loop={address.loop}
        music={playing ? musicTick : null}
      />
      <div className={styles.below}>
        <Chains {...props} />
        <Side {...props} />
      </div>
    </div>
  )
}

export default RouteView
