import { FAMILY_NAMES, type FamilyName } from '../../../core/index.ts'
import { FAMILY_WORDS } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { Slider } from '../../parts/Slider.tsx'
import type { Filters } from '../../state/address/filters.ts'
import styles from './LayOver.module.css'

interface Props {
  readonly filters: Filters
  readonly onChange: (filters: Filters) => void
}

const KEYS = [
  { value: 'any', label: 'any key distance' },
  ...[0, 1, 2, 3, 4, 5].map((n) => ({ value: String(n), label: n === 0 ? 'the same key' : `key distance up to ${n}` })),
]
const STATES = [
  { value: 'any', label: 'states it or not' },
  { value: 'chord', label: 'states the chord' },
  { value: 'vague', label: 'stays vague' },
] as const

/** Families, fade, landing, key distance, whether it states the chord. */
export const FilterPanel = ({ filters, onChange }: Props) => {
  const turnFamily = (family: FamilyName) => {
    const now = filters.families ?? []
    const then = now.includes(family) ? now.filter((f) => f !== family) : [...now, family]
    onChange({ ...filters, families: then.length > 0 ? then : null })
  }
  return (
    <div className={styles.panel}>
      <div className={styles.families} role="group" aria-label="Families">
        {FAMILY_NAMES.map((f) => (
          <Button key={f} pressed={filters.families?.includes(f) ?? false} onClick={() => turnFamily(f)}>
            {FAMILY_WORDS[f]}
          </Button>
        ))}
      </div>
      <div className={styles.sliders}>
        <Slider label="Fade from" value={filters.fadeMin} onChange={(fadeMin) => onChange({ ...filters, fadeMin })} />
        <Slider label="Fade to" value={filters.fadeMax} onChange={(fadeMax) => onChange({ ...filters, fadeMax })} />
        <Slider
          label="Lands at least"
          value={filters.landingMin}
          onChange={(landingMin) => onChange({ ...filters, landingMin })}
        />
      </div>
      <div className={styles.choices}>
        <Select
          label="Key distance"
          labelHidden
          value={filters.keyMax === null ? 'any' : String(filters.keyMax)}
          options={KEYS}
          onPick={(v) => onChange({ ...filters, keyMax: v === 'any' ? null : Number(v) })}
        />
        <Select
          label="States the chord"
          labelHidden
          value={filters.states ?? 'any'}
          options={STATES}
          onPick={(v) => onChange({ ...filters, states: v === 'any' ? null : v })}
        />
      </div>
    </div>
  )
}
