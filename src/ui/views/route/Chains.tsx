import { type RouteReport, sharedStart, toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { copyTable } from '../../state/page/copying.ts'
import { openPrinting } from '../../state/page/dialogs.ts'
import { applyGivings, moveRoute, pickRoute, setPlan } from '../../state/route/steering.ts'
import { keepHere, takeHere } from '../../state/shell/hands.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

/** Where a route is not as the best one is, by bars. */
const differs = (route: RouteReport, best: RouteReport): string => {
  const bars = route.steps.filter((s, i) => s.overlay !== best.steps[i]?.overlay).map((s) => s.bar)
  return `other than the first in bar ${[...new Set(bars)].join(', ')}`
}

const routeText = (route: RouteReport, chart: string) => ({
  title: `${route.title}, over ${chart}`,
  heads: ['Bar', 'Beat', 'Chord', 'Overlay', 'Wished', 'Fade', 'Landing', 'Why'],
  rows: route.steps.map((s) => [
    ...[String(s.bar), String(s.beat), s.chord, s.overlay],
    ...[s.wished, s.fade, s.landing].map((n) => (n === null ? '' : String(n))),
    s.why,
  ]),
})

const NoRoute = ({ planning }: RouteProps) => (
  <div role="alert" className={styles.none}>
    <h3>No route keeps to all of this</h3>
    {planning.loosen.length === 0 ? (
      <p>No single rule is enough to let go of. Take back what was asked last.</p>
    ) : (
      <>
        <p>Any one of these would do:</p>
        <ul>
          {planning.loosen.map((l) => (
            <li key={l.text}>
              <Button onClick={() => applyGivings(l.gives)}>{toGlyphs(l.text)}</Button>
            </li>
          ))}
        </ul>
      </>
    )}
  </div>
)

/** The ranked routes, each with what it misses; lower is better. */
export const Chains = (props: RouteProps) => {
  const { planning, kept, openChart, route, model } = props
  const [best] = planning.routes
  return (
    <section className={styles.chains} aria-label="Chains">
      <div className={styles.head}>
        <h2>Chains, best first</h2>
        <label className={styles.check}>
          <input
            type="checkbox"
            checked={model.plan.eachSeries}
            onChange={(e) => setPlan({ eachSeries: e.target.checked })}
          />
          each kind once
        </label>
        {route && (
          <>
            <Button tone="strong" title="Shift L" onClick={() => void takeHere()}>
              Take in hand
            </Button>
            <Button title="k: keep it beside the one in hand" onClick={keepHere}>
              Keep
            </Button>
            <Button onClick={() => void copyTable(routeText(route, openChart.title))}>Copy</Button>
          </>
        )}
        {(route || kept.route) && (
          <>
            <Button onClick={openPrinting}>Print</Button>
            <Button aria-label="Move the whole route up a half step" onClick={() => moveRoute(1)}>
              all ↑½
            </Button>
            <Button aria-label="Move the whole route down a half step" onClick={() => moveRoute(-1)}>
              all ↓½
            </Button>
          </>
        )}
      </div>
      {planning.state === 'none' ? (
        <NoRoute {...props} />
      ) : (
        <div className={styles.rows}>
          <table className={styles.table}>
            <thead>
              <tr>
                <th scope="col">what it misses; lower is better</th>
                <th scope="col">arc</th>
                <th scope="col">motion</th>
                <th scope="col">landing</th>
                <th scope="col">repeats</th>
                <th scope="col">rubs</th>
                <th scope="col">in all</th>
              </tr>
            </thead>
            <tbody>
              {kept.route && (
                <tr className={route ? '' : styles.chosen}>
                  <th scope="row" colSpan={7}>
                    <button type="button" aria-pressed={route === null} onClick={() => pickRoute(null)}>
                      <strong>In hand: {toGlyphs(kept.route.name)}</strong>
                      <span>what every view shows and the band plays; a chain taken replaces it bar by bar</span>
                    </button>
                  </th>
                </tr>
              )}
              {planning.routes.map((r, i) => {
                const chosen = r === route
                const first = i === 0 ? undefined : best
                const shared = first ? sharedStart(r.title, first.title) : ''
                return (
                  <tr key={r.steps.map((s) => s.overlay).join()} className={chosen ? styles.chosen : ''}>
                    <th scope="row">
                      <button type="button" aria-pressed={chosen} onClick={() => pickRoute(i)}>
                        <strong>
                          {shared && <span className={styles.shared}>{toGlyphs(shared)}</span>}
                          {toGlyphs(r.title.slice(shared.length))}
                        </strong>
                        <span>{toGlyphs(first ? differs(r, first) : r.why.join(' '))}</span>
                      </button>
                    </th>
                    <td>{r.terms.arcMiss}</td>
                    <td>{r.terms.motion}</td>
                    <td>{r.terms.landingMiss}</td>
                    <td>{r.terms.repeats}</td>
                    <td>{r.terms.rubs}</td>
                    <td>
                      <strong>{r.total}</strong>
                    </td>
                  </tr>
                )
              })}
            </tbody>
          </table>
          {planning.routes.length === 0 && planning.state === 'planning' && <p role="status">Planning …</p>}
        </div>
      )}
    </section>
  )
}
