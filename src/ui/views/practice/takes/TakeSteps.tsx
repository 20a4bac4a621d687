import { type PlanStep, toGlyphs } from '../../../../core/index.ts'
import { hueClass } from '../../../figures/hue.ts'
import { beatText } from '../../../figures/words.ts'
import styles from './Takes.module.css'

const percent = (share: number | null): string => (share === null ? '–' : `${Math.round(share * 100)} %`)

/** The plan step by step: what was laid, how much of what was played lies there and at home, how far out against the wish. */
export const TakeSteps = ({ steps }: { readonly steps: readonly PlanStep[] }) => {
  if (steps.length === 0)
    return <p className={styles.soft}>Nothing was laid over the chart, so there was no plan to keep.</p>
  const several = new Set(steps.map((s) => s.chorus)).size > 1
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: a table wider than a telephone is scrolled by keys too
    <div className={styles.scroll} tabIndex={0}>
      <table className={styles.steps}>
        <caption>The plan, step by step</caption>
        <thead>
          <tr>
            <th scope="col">bar</th>
            <th scope="col">chord</th>
            <th scope="col">laid</th>
            <th scope="col">in it</th>
            <th scope="col">at home</th>
            <th scope="col">fade</th>
            <th scope="col">wished</th>
          </tr>
        </thead>
        <tbody>
          {steps.map((s) => (
            <tr key={s.from}>
              <th scope="row">
                {several ? `${s.chorus}: ` : ''}
                {s.bar}
                {s.beat > 1 ? `, beat ${beatText(s.beat)}` : ''}
              </th>
              <td>{toGlyphs(s.chord)}</td>
              <td>{s.overlay ? toGlyphs(s.overlay.name) : 'home'}</td>
              <td>
                <span className={styles.share} data-share={s.inPlan === null ? undefined : Math.round(s.inPlan * 10)}>
                  {percent(s.inPlan)}
                </span>
              </td>
              <td>{percent(s.inHome)}</td>
              <td className={hueClass(s.fade ?? 0)}>
                <b className={styles.figure}>{s.fade ?? '–'}</b>
              </td>
              <td>{Math.round(s.wished)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
