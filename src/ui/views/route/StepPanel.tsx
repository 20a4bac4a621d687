import { useStore } from '@nanostores/react'
import { useEffect } from 'react'
import { noteSentence, type Reading, readingSentence, sameAt, toGlyphs } from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { beatText } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { $others, findOthers } from '../../state/route/planning.ts'
import { banHere, joinHere, layAtStep, splitHere, toggleLock } from '../../state/route/steering.ts'
import { hearHere } from '../../state/shell/hands.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const Others = ({ address, kept, openChart, model, planning, route }: RouteProps) => {
  const others = useStore($others)
  const { current } = model
  useEffect(() => {
    if (route && current && planning.state === 'routes')
      void findOthers(address, kept, openChart, model, route, current)
  }, [address, kept, openChart, model, planning, route, current])
  if (!current) return null
  if (!route) return <p>Choose a chain of the list: others are told for its steps.</p>
  if (!others || others.routes === null) return <p role="status">Looking for others …</p>
  const now = route.steps.find((s) => sameAt(s, current))?.overlay
  const rows = others.routes.flatMap((r) => {
    const step = r.steps.find((s) => sameAt(s, current))
    return step && step.overlay !== now ? [{ step, total: r.total }] : []
  })
  if (rows.length === 0) return <p>Nothing else keeps to the rules here.</p>
  return (
    <ul className={styles.others}>
      {rows.map(({ step, total }) => (
        <li key={step.overlay}>
          <button type="button" onClick={() => layAtStep(step.overlay)}>
            <strong>{toGlyphs(step.overlay)}</strong>
            <span>
              fade {step.fade}, lands {step.landing ?? '–'}
            </span>
            <span>{total >= route.total ? `+${total - route.total}` : total - route.total}</span>
          </button>
        </li>
      ))}
    </ul>
  )
}

const Facts = ({ reading }: { readonly reading: Reading }) => (
  <>
    <p>{toGlyphs(readingSentence(reading))}</p>
    {reading.worst.fade > 0 && <p className={styles.soft}>{toGlyphs(noteSentence(reading.worst, reading))}</p>}
  </>
)

/** The step in view: what it is, what can be done with it, and what else could stand there. */
export const StepPanel = (props: RouteProps) => {
  const { model, steps } = props
  const { current } = model
  const step = current && steps[current.index]
  if (!current || !step) return null
  return (
    <>
      <div className={styles.stepHead}>
        {step.reading && <Multiple reading={step.reading} />}
        <h2>
          {toGlyphs(step.overlay?.name ?? 'Nothing yet')}{' '}
          <span className={styles.soft}>
            over {toGlyphs(current.chord.symbol)}, bar {current.bar}
            {current.beat > 1 ? `, beat ${beatText(current.beat)}` : ''}
          </span>
        </h2>
      </div>
      {step.was !== null && (
        <p role="alert">
          When this was kept, {toGlyphs(step.was)} stood here; now it is {toGlyphs(current.chord.symbol)}.
        </p>
      )}
      {step.reading && <Facts reading={step.reading} />}
      <div className={styles.tools}>
        <Button title="Enter" onClick={hearHere} disabled={!step.overlay}>
          Hear
        </Button>
        <Button
          pressed={step.locked}
          title={step.locked ? 'l: let a planning change it' : 'l: lay it here, and keep it when planning'}
          onClick={toggleLock}
          disabled={!step.overlay}
        >
          {step.locked ? 'Laid by hand' : 'Lay it here'}
        </Button>
        <Button title="b" onClick={banHere} disabled={!step.overlay}>
          Not this
        </Button>
        <Button title="x" onClick={splitHere} disabled={current.beats < 2}>
          Split
        </Button>
        <Button title="j" onClick={joinHere} disabled={current.index === 0}>
          {model.plan.joins.some((j) => sameAt(j, current)) ? 'Part' : 'Join'}
        </Button>
      </div>
      <h3>Others here, the rest as it is</h3>
      <Others {...props} />
    </>
  )
}
