import { useStore } from '@nanostores/react'
import { useEffect, useMemo } from 'react'
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
import { $other, fetchOther } from '../../stores/other.ts'
import { go } from '../../stores/place.ts'
import { applyRecipe } from '../../stores/steering.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const barsWord = (from: number, to: number): string => (from === to ? `bar ${from}` : `bars ${from}–${to}`)

/** The chart whose changes may be laid over this one, in the player's pitch. */
const useOther = ({ place, desk }: RouteProps): Ground['other'] => {
  const other = useStore($other)
  useEffect(() => {
    if (place.other !== null) void fetchOther(place.other)
  }, [place.other])
  const text = other?.id === place.other && other?.answer.ok ? other.answer.value.text : null
  const { instrument } = desk
  return useMemo(() => {
    const read = text === null ? null : readChart(text)
    return read?.ok ? { chart: transposeChart(read.value, instrument.written), shift: place.shift } : null
  }, [text, instrument, place.shift])
}

/** Ready recipes, each with its reason and the places of this chart where it applies. */
export const Recipes = (props: RouteProps) => {
  const { place, kept, desk, model } = props
  const other = useOther(props)
  const { chart, settings } = desk
  const { analysis, plan } = model
  const recipes = useMemo(() => {
    if (!chart) return []
    const slots = slotsOf(chart, analysis, [], settings.school, { ...SPOT_BY_SPOT, bars: plan.bars })
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
        value={place.other ?? ''}
        options={[{ value: '', label: 'Choose a chart' }, ...kept.charts.map((c) => ({ value: c.id, label: c.title }))]}
        onPick={(id) => go({ other: id || null, shift: 0 })}
      />
    </>
  )
}
