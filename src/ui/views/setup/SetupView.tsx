import { INSTRUMENTS } from '../../../core/index.ts'
import { Select } from '../../parts/Select.tsx'
import { keepSetting } from '../../stores/kept.ts'
import { LOOKS } from '../../stores/settings.ts'
import type { ViewProps } from '../view.ts'
import styles from './SetupView.module.css'

const LOOK_NAMES = { system: 'As the system has it', light: 'Light', club: 'Club (dark)' } as const

/** Instrument, look, keys; and how to practise without being hurt. */
const SetupView = ({ desk }: ViewProps) => {
  const { instrument, look, keys } = desk.settings
  return (
    <div className={styles.setup}>
      <section className={styles.settings} aria-label="Settings">
        <h1>Set-up</h1>
        <Select
          label="Instrument"
          hint="What you type and read is in its written pitch. Everything is kept in concert pitch."
          value={instrument ?? 'concert'}
          options={INSTRUMENTS.map((i) => ({ value: i.id, label: i.name }))}
          onPick={(id) => void keepSetting('instrument', id)}
        />
        <Select
          label="Look"
          hint="Club is dark, for a stage or a late room."
          value={look}
          options={LOOKS.map((l) => ({ value: l, label: LOOK_NAMES[l] }))}
          onPick={(l) => void keepSetting('look', l)}
        />
        <Select
          label="Keys"
          hint="The pedal works either way."
          value={keys}
          options={[
            { value: 'on', label: 'On' },
            { value: 'off', label: 'Off: only Tab, Enter and the pedal' },
          ]}
          onPick={(k) => void keepSetting('keys', k)}
        />
      </section>
      <section className={styles.care} aria-label="Take care">
        <h2>Take care</h2>
        <ul>
          <li>Warm up before you play fast or loud.</li>
          <li>Take a break every half hour, away from the instrument.</li>
          <li>Stop at pain or tingling. If it comes back, ask a teacher or a clinician, not a program.</li>
          <li>Keep the level low, in headphones above all: lost hearing does not come back.</li>
        </ul>
      </section>
    </div>
  )
}

export default SetupView
