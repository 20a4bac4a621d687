import { DEFAULT_SCHOOL, SCHOOL_CHOICES, type SchoolSetting } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import type { Desk } from '../../stores/desk.ts'
import { chooseSchool } from '../../stores/judging.ts'
import { keepSetting } from '../../stores/kept.ts'
import styles from './SetupView.module.css'

/** Where good players disagree, and who would choose which. */
export const Schools = ({ desk }: { readonly desk: Desk }) => {
  const { school } = desk.settings
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
          onPick={(choice) => void chooseSchool(s, choice)}
        />
      ))}
      <Button
        disabled={JSON.stringify(school) === JSON.stringify(DEFAULT_SCHOOL)}
        onClick={() => void keepSetting('school', DEFAULT_SCHOOL)}
      >
        Back to the usual school
      </Button>
    </section>
  )
}
