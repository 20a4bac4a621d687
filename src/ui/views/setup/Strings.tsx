import { useState } from 'react'
import { readTuning, TUNINGS } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { keepSetting } from '../../state/kept/keep-setting.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './SetupView.module.css'

const OWN = 'own'

/** Which neck the fretboard shows. */
export const Strings = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { tuning, leftHanded } = openChart.settings
  const known = TUNINGS.find((t) => t.strings === tuning)
  const [own, setOwn] = useState<string | null>(known ? null : tuning)
  const read = own === null ? null : readTuning(own)
  return (
    <section className={styles.block} aria-label="Strings">
      <h2>Strings</h2>
      <Select
        label="Tuning"
        value={own === null ? (known?.id ?? OWN) : OWN}
        options={[
          ...TUNINGS.map((t) => ({ value: t.id as string, label: t.name })),
          { value: OWN, label: 'Own tuning' },
        ]}
        onPick={(id) => {
          const picked = TUNINGS.find((t) => t.id === id)
          setOwn(picked ? null : tuning)
          if (picked) keepSetting('tuning', picked.strings)
        }}
      />
      {own !== null && (
        <form
          className={styles.own}
          onSubmit={(e) => {
            e.preventDefault()
            if (read?.ok) keepSetting('tuning', own.trim())
          }}
        >
          <label htmlFor="own-tuning">Open strings from the lowest, with octaves</label>
          <input
            id="own-tuning"
            value={own}
            aria-invalid={read?.ok === false}
            aria-describedby="own-tuning-error"
            onChange={(e) => setOwn(e.target.value)}
          />
          <Button type="submit" disabled={!read?.ok || own.trim() === tuning}>
            Use it
          </Button>
          <p id="own-tuning-error" role="alert">
            {read?.ok === false &&
              `${read.error.found ? `“${read.error.found}” is no open string` : 'Nothing is written'}. Expected ${read.error.expected[0]}.`}
          </p>
        </form>
      )}
      <label className={styles.check}>
        <input type="checkbox" checked={leftHanded} onChange={(e) => keepSetting('leftHanded', e.target.checked)} />
        Left-handed
      </label>
    </section>
  )
}
