import { useMemo } from 'react'
import {
  type Ground,
  readChart,
  recipesIn,
  SPOT_BY_SPOT,
  slotsOf,
  toGlyphs,
  transposeChart,
} from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { applyRecipe } from '../../state/route/steering.ts'
import { useChart } from '../overlay/use-chart.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const barsWord = (from: number, to: number): string => (from === to ? `bar ${from}` : `bars ${from}–${to}`)

/** The chart whose changes may be laid over this one, in the player's pitch. */
const useOther = ({ address, openChart }: RouteProps): Ground['other'] => {
  const text = useChart(address.other).row?.text ?? null
  const { instrument } = openChart
  return useMemo(() => {
    const read = text === null ? null : readChart(text)
    return read?.ok ? { chart: transposeChart(read.value, instrument.written), shift: address.shift } : null
  }, [text, instrument, address.shift])
}

/** Ready recipes, each with its reason and the places of this chart where it applies. */
export const Recipes = (props: RouteProps) => {
  const { address, kept, openChart, model } = props
  const other = useOther(props)
  const { chart, settings } = openChart
  const { analysis, plan } = model
  const recipes = useMemo(() => {
    if (!chart) return []
    const slots = slotsOf(analysis, [], settings.school, { ...SPOT_BY_SPOT, bars: plan.bars })
    return recipesIn({ chart, analysis, slots, school: settings.school, other })
  }, [chart, analysis, plan.bars, settings.school, other])
  return (
    <>
      <p className={styles.soft}>
        Each lays its overlays down as locks; the rest is planned around them, and every lock can be taken out again.
      </p>
      {recipes.map((r) => (
        <section key={r.name} className={styles.recipe} aria-label={r.name}>
          <div className={styles.head}>
            <h3>{toGlyphs(r.name)}</h3>
            {r.places.length > 1 && <Button onClick={() => applyRecipe(r.places)}>everywhere</Button>}
          </div>
          <p className={styles.soft}>{toGlyphs(r.reason)}</p>
          <ul>
            {r.places.map((p) => (
              <li key={`${p.fromBar} ${p.because}`}>
                <Button onClick={() => applyRecipe([p])}>{barsWord(p.fromBar, p.toBar)}</Button>{' '}
                <span>{toGlyphs(p.because)}</span>
              </li>
            ))}
          </ul>
        </section>
      ))}
      {recipes.length === 0 && <p>None of the recipes applies in these bars.</p>}
      <Select
        label="Another chart’s changes"
        value={address.other ?? ''}
        options={[{ value: '', label: 'Choose a chart' }, ...kept.charts.map((c) => ({ value: c.id, label: c.title }))]}
        onPick={(id) => go({ other: id || null, shift: 0 })}
      />
    </>
  )
}
