import { sameAt, toGlyphs } from '../../../core/index.ts'
import { hueClass } from '../../figures/hue.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { Button } from '../../parts/Button.tsx'
import type { RouteRow } from '../../state/kept/row-types.ts'
import { copyTable } from '../../state/page/copying.ts'
import { keptSteps, type ShownStep } from '../../state/route/route-model.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const mean = (steps: readonly ShownStep[], of: (s: ShownStep) => number | null | undefined): string => {
  const known = steps.map(of).filter((n): n is number => typeof n === 'number')
  return known.length === 0 ? '–' : String(Math.round(known.reduce((a, b) => a + b, 0) / known.length))
}

const Cell = ({ step }: { readonly step: ShownStep | undefined }) =>
  step?.overlay && step.reading ? (
    <td>
      <span className={styles.cell}>
        <Multiple reading={step.reading} />
        <span>
          <strong>{toGlyphs(step.overlay.name)}</strong>
          <span className={`${styles.fade} ${hueClass(step.reading.fade)}`}>{step.reading.fade}</span>
        </span>
      </span>
    </td>
  ) : (
    <td>–</td>
  )

/** The route in view beside a kept one, step by step: only where they differ, unless they never do. */
export const CompareRoutes = ({
  steps,
  model,
  openChart,
  kept,
  route,
  row,
}: RouteProps & { readonly row: RouteRow }) => {
  const other = keptSteps(model, openChart, row)
  const mine = route?.title ?? kept.route?.name ?? ''
  const pairs = steps.map((s) => [s, other.find((o) => sameAt(o.slot, s.slot))] as const)
  const differing = pairs.filter(([a, b]) => a.overlay?.set !== b?.overlay?.set)
  const copied = {
    title: `${mine} beside ${row.name}`,
    heads: ['Bar', 'Chord', mine, 'Fade', row.name, 'Fade'],
    rows: pairs.map(([a, b]) => [
      String(a.slot.bar),
      a.slot.chord.symbol,
      a.overlay?.name ?? '',
      String(a.reading?.fade ?? ''),
      b?.overlay?.name ?? '',
      String(b?.reading?.fade ?? ''),
    ]),
  }
  return (
    <section aria-label="Compared">
      <div className={styles.head}>
        <h3>Side by side</h3>
        <Button onClick={() => void copyTable(copied)}>Copy as text</Button>
      </div>
      <p>
        {differing.length === 0
          ? 'They lay the same everywhere.'
          : `They differ at ${differing.length} of ${pairs.length} steps.`}
      </p>
      <table className={styles.compare}>
        <thead>
          <tr>
            <th scope="col">Bar</th>
            <th scope="col">{toGlyphs(mine)}</th>
            <th scope="col">{toGlyphs(row.name)}</th>
          </tr>
        </thead>
        <tbody>
          <tr>
            <th scope="row">mean</th>
            <td>
              fade {mean(steps, (s) => s.reading?.fade)}, lands {mean(steps, (s) => s.reading?.landing)}
            </td>
            <td>
              fade {mean(other, (s) => s.reading?.fade)}, lands {mean(other, (s) => s.reading?.landing)}
            </td>
          </tr>
          {differing.map(([a, b]) => (
            <tr key={a.slot.index}>
              <th scope="row">
                {a.slot.bar} {toGlyphs(a.slot.chord.symbol)}
              </th>
              <Cell step={a} />
              <Cell step={b} />
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}
