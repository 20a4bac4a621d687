import { DIRECTIONS, INSTRUMENTS, PENTATONIC_NAMINGS } from '../../../core/index.ts'
import { Select } from '../../parts/Select.tsx'
import { keepSetting } from '../../state/kept/keep-setting.ts'
import { CLEFS, LOOKS } from '../../state/kept/settings.ts'
import type { ViewProps } from '../view.ts'
import { Ears } from './Ears.tsx'
import { Schools } from './Schools.tsx'
import styles from './SetupView.module.css'
import { Strings } from './Strings.tsx'

const LOOK_NAMES = { system: 'As the system has it', light: 'Light', club: 'Club (dark)' } as const
const DIRECTION_NAMES = {
  'as usual': 'As usual: C♯ E♭ F♯ A♭ B♭ for minor, D♭ for the others',
  flats: 'Flats',
  sharps: 'Sharps',
} as const
const NAMING_NAMES = {
  'as minor': 'As minor (C♯ minor pentatonic)',
  'as major': 'As major (E major pentatonic)',
} as const

/** Instrument, names, school, ears, strings, look, keys; and how to practise without being hurt. */
const SetupView = ({ openChart }: ViewProps) => {
  const { instrument, look, keys, clef, naming, direction } = openChart.settings
  return (
    <div className={styles.setup}>
      <div className={styles.settings}>
        <section className={styles.block} aria-label="Settings">
          <h1>Set-up</h1>
          <Select
            label="Instrument"
            hint="What you type and read is in its written pitch. Everything is kept in concert pitch."
            value={instrument ?? 'concert'}
            options={INSTRUMENTS.map((i) => ({ value: i.id, label: i.name }))}
            onPick={(id) => keepSetting('instrument', id)}
          />
          <Select
            label="Clef"
            value={clef}
            options={CLEFS.map((c) => ({ value: c, label: c }))}
            onPick={(c) => keepSetting('clef', c)}
          />
          <Select
            label="Roots on black keys that nobody typed"
            value={direction}
            options={DIRECTIONS.map((d) => ({ value: d, label: DIRECTION_NAMES[d] }))}
            onPick={(d) => keepSetting('direction', d)}
          />
          <Select
            label="Pentatonics of the same notes"
            value={naming}
            options={PENTATONIC_NAMINGS.map((n) => ({ value: n, label: NAMING_NAMES[n] }))}
            onPick={(n) => keepSetting('naming', n)}
          />
          <Select
            label="Look"
            hint="Club is dark, for a stage or a late room."
            value={look}
            options={LOOKS.map((l) => ({ value: l, label: LOOK_NAMES[l] }))}
            onPick={(l) => keepSetting('look', l)}
          />
          <Select
            label="Keys"
            hint="The pedal works either way."
            value={keys}
            options={[
              { value: 'on', label: 'On' },
              { value: 'off', label: 'Off: only Tab, Enter and the pedal' },
            ]}
            onPick={(k) => keepSetting('keys', k)}
          />
        </section>
        <Strings openChart={openChart} />
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
      <Schools openChart={openChart} />
      <Ears openChart={openChart} />
    </div>
  )
}

export default SetupView
