import { DEFAULT_SCHOOL, SCHOOL_CHOICES, type SchoolSetting } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { chooseSchool } from '../../state/desk/judging.ts'
import { keepSetting } from '../../state/kept/keep-setting.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './SetupView.module.css'

/** Where good players disagree, and who would choose which. */
export const Schools = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { school } = openChart.settings
  return (
    <section className={styles.block} aria-label="School">
      <h2>School</h2>
      <p className={styles.soft}>
        Where good players disagree. On the Desk, O shows what a choice would change in the overlay in view.
      </p>
      {(Object.keys(SCHOOL_CHOICES) as SchoolSetting[]).map((s) => (
        <Select
          key={s}
          label={SCHOOL_CHOICES[s].title}
          hint={SCHOOL_CHOICES[s].why}
          value={school[s] as string}
          options={SCHOOL_CHOICES[s].choices.map((c) => ({ value: c as string, label: c }))}
          onPick={(choice) => chooseSchool(s, choice)}
        />
      ))}
      <Button
        disabled={JSON.stringify(school) === JSON.stringify(DEFAULT_SCHOOL)}
        onClick={() => keepSetting('school', DEFAULT_SCHOOL)}
      >
        Back to the usual school
      </Button>
    </section>
  )
}
