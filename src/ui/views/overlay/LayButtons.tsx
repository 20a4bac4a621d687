import { Button } from '../../parts/Button.tsx'
import { layHere, layNothing } from '../../state/tune/in-hand.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'

/** Lays what is in view over the chord, in the route in hand; or takes away what lies there. */
export const LayButtons = ({ openChart }: { readonly openChart: OpenChart }) =>
  openChart.current?.by === 'route' ? (
    <Button title="Delete: nothing lies here then" onClick={layNothing}>
      Take away
    </Button>
  ) : (
    <Button tone="strong" title="l: into the route in hand" onClick={layHere}>
      Lay here
    </Button>
  )
