import { ARC_NAMES, ARC_PRESETS, type ArcPreset, toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { planAgain, stopPlanning } from '../../state/route/planning.ts'
import { setPlan } from '../../state/route/steering.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

/** After so long a player wants to know how far it is. */
const SHOWN_FROM = 0.01

const Progress = ({ address, kept, openChart, model, planning }: RouteProps) => {
  switch (planning.state) {
    case 'planning':
      return (
        <>
          <progress max={1} value={planning.share} aria-label="Planning">
            {Math.round(planning.share * 100)} %
          </progress>
          <Button onClick={stopPlanning} disabled={planning.share < SHOWN_FROM}>
            Stop
          </Button>
        </>
      )
    case 'routes':
      return (
        <span>
          best {planning.routes.length}, exact, {(planning.ms / 1000).toFixed(2)} s
        </span>
      )
    case 'none':
      return <span>no route</span>
    default:
      return (
        <>
          <span>{planning.state === 'stopped' ? 'Stopped.' : 'It could not be planned.'}</span>
          <Button onClick={() => planAgain(address, kept, openChart, model)}>Plan again</Button>
        </>
      )
  }
}

/** The head of the band: the ready shapes, what is in view, and how the planning stands. */
export const WishBar = (props: RouteProps) => {
  const { model, kept, route, address } = props
  return (
    <div className={styles.wishes}>
      <h1>How far out</h1>
      <Select
        label="Shape"
        labelHidden
        value={model.plan.preset}
        options={ARC_NAMES.map((name) => ({ value: name, label: name }))}
        onPick={(preset: ArcPreset) => setPlan({ preset, arc: [] })}
      />
      <span className={styles.hint} title={ARC_PRESETS[model.plan.preset].reason}>
        drag a step’s bar, or Shift ↑ ↓
      </span>
      <span className={styles.following}>
        {route ? (
          <>
            proposed: <strong>{toGlyphs(route.title)}</strong>
          </>
        ) : (
          kept.route && (
            <>
              in hand: <strong>{toGlyphs(kept.route.name)}</strong>
            </>
          )
        )}
      </span>
      <Button pressed={address.near} onClick={() => go({ near: !address.near })}>
        Names
      </Button>
      <span className={styles.state} role="status">
        <Progress {...props} />
      </span>
    </div>
  )
}
