import { FAMILY_NAMES, PAIRS_TRIED, toGlyphs } from '../../../core/index.ts'
import { FAMILY_WORDS } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { Slider } from '../../parts/Slider.tsx'
import { type PlanWords, USUAL_PLAN, type WholePlan } from '../../state/route/plan-words.ts'
import { setPlan } from '../../state/route/steering.ts'
import styles from './RouteView.module.css'
import type { RouteProps } from './route-props.ts'

const MOTIONS = [
  ['free', 'free: whatever costs least'],
  ['fewest', 'fewest notes moving'],
  ['one-note', 'one note changes at a time'],
  ['contrary', 'against the bass'],
  ['+1', 'one shape, up by half steps'],
  ['-1', 'one shape, down by half steps'],
  ['constant', 'one shape, by whichever step fits best'],
  ['+2', 'one shape, up by whole steps'],
  ['+3', 'one shape, up by minor thirds'],
  ['+4', 'one shape, up by major thirds'],
  ['-5', 'one shape, down by fourths'],
] as const

const SCOPES = [
  ['cadence', 'within each cadence'],
  ['throughout', 'at every change'],
] as const

const DEGREES = ['1', 'b9', '9', 'b3', '3', '11', '#11', '5', 'b13', '13', 'b7', '7'] as const

const toggled = <T,>(all: readonly T[], one: T): readonly T[] =>
  all.includes(one) ? all.filter((o) => o !== one) : [...all, one]

const Check = ({ label, on, onTurn }: { label: string; on: boolean; onTurn: (on: boolean) => void }) => (
  <label className={styles.check}>
    <input type="checkbox" checked={on} onChange={(e) => onTurn(e.target.checked)} />
    {label}
  </label>
)

const Degrees = ({ of, plan }: { readonly of: 'hold' | 'avoid'; readonly plan: WholePlan }) => (
  <fieldset className={styles.choice}>
    <legend>{of === 'hold' ? 'On every chord it must hold' : 'On no chord may it hold'}</legend>
    {DEGREES.map((d) => (
      <Button
        key={d}
        pressed={plan[of].includes(d)}
        onClick={() =>
          setPlan({
            [of]: toggled(plan[of], d),
            [of === 'hold' ? 'avoid' : 'hold']: plan[of === 'hold' ? 'avoid' : 'hold'].filter((o) => o !== d),
          })
        }
      >
        {toGlyphs(d)}
      </Button>
    ))}
  </fieldset>
)

/** What was locked, banned, cut or joined, each with its way back. */
const Standing = ({ plan }: { readonly plan: WholePlan }) => {
  const items = [
    ...plan.locks.map((l) => ({
      text: `bar ${l.bar}: ${l.overlay}`,
      without: { locks: plan.locks.filter((o) => o !== l) },
    })),
    ...plan.bans.map((b) => ({
      text: `${b.bar === undefined ? 'never' : `bar ${b.bar}: not`} ${b.overlay ?? b.device}`,
      without: { bans: plan.bans.filter((o) => o !== b) },
    })),
    ...plan.cuts.map((c) => ({ text: `bar ${c.bar}: split`, without: { cuts: plan.cuts.filter((o) => o !== c) } })),
    ...plan.joins.map((j) => ({
      text: `bar ${j.bar}: goes on`,
      without: { joins: plan.joins.filter((o) => o !== j) },
    })),
    ...(plan.windows.length > 0 ? [{ text: 'four out, four in', without: { windows: [] } }] : []),
  ] satisfies readonly { readonly text: string; readonly without: PlanWords }[]
  if (items.length === 0) return null
  return (
    <fieldset className={styles.choice}>
      <legend>Asked for, a tap takes it back</legend>
      {items.map(({ text, without }) => (
        <Button key={text} onClick={() => setPlan(without)}>
          {toGlyphs(text)} ×
        </Button>
      ))}
    </fieldset>
  )
}

const Bars = ({ model, openChart }: RouteProps) => {
  const bars = openChart.chart?.bars ?? []
  const [first, last] = [bars[0]?.number ?? 1, bars.at(-1)?.number ?? 1]
  const [from, to] = model.plan.bars ?? [first, last]
  const options = bars.map((b) => ({ value: String(b.number), label: `bar ${b.number}` }))
  const set = (a: number, b: number) =>
    setPlan({ bars: a <= first && b >= last ? null : [Math.min(a, b), Math.max(a, b)] })
  return (
    <div className={styles.pair}>
      <Select label="From" value={String(from)} options={options} onPick={(v) => set(Number(v), to)} />
      <Select label="to" value={String(to)} options={options} onPick={(v) => set(from, Number(v))} />
    </div>
  )
}

/** What a route must keep to. */
export const Rules = (props: RouteProps) => {
  const { plan } = props.model
  const motions = MOTIONS.some(([m]) => m === plan.motion) ? MOTIONS : [...MOTIONS, [plan.motion, plan.motion] as const]
  return (
    <>
      <div className={styles.pair}>
        <Select
          label="Motion"
          value={plan.motion}
          options={motions.map(([value, label]) => ({ value, label }))}
          onPick={(motion) => setPlan({ motion })}
        />
        <Select
          label="Where"
          value={plan.scope}
          options={SCOPES.map(([value, label]) => ({ value, label }))}
          onPick={(scope) => setPlan({ scope })}
        />
      </div>
      <Bars {...props} />
      <div className={styles.checks}>
        <Check
          label="a held chord keeps one overlay"
          on={plan.holdsAsOne}
          onTurn={(holdsAsOne) => setPlan({ holdsAsOne })}
        />
        <Check label="the last step joins the first" on={plan.loop} onTurn={(loop) => setPlan({ loop })} />
      </div>
      <fieldset className={styles.choice}>
        <legend>Made of</legend>
        {FAMILY_NAMES.map((f) => (
          <Button
            key={f}
            pressed={plan.families.includes(f)}
            onClick={() => {
              const families = toggled(plan.families, f)
              if (families.length > 0) setPlan({ families })
            }}
          >
            {FAMILY_WORDS[f]}
          </Button>
        ))}
      </fieldset>
      {plan.families.includes('pair') && (
        <p className={styles.soft}>Of all pairs, the {PAIRS_TRIED} cheapest at each step are tried.</p>
      )}
      <div className={styles.pair}>
        <Slider label="Fade at most" value={plan.fadeMax} onChange={(fadeMax) => setPlan({ fadeMax })} step={5} />
        <Slider
          label="Landing at least"
          value={plan.landingMin}
          onChange={(landingMin) => setPlan({ landingMin })}
          step={5}
        />
        <Slider
          label="Notes may rub from a fade of"
          value={plan.rubsFrom}
          onChange={(rubsFrom) => setPlan({ rubsFrom })}
          step={5}
        />
      </div>
      <Degrees of="hold" plan={plan} />
      <Degrees of="avoid" plan={plan} />
      <Standing plan={plan} />
      <Button onClick={() => setPlan(USUAL_PLAN)}>As at first</Button>
    </>
  )
}
