import type { ComponentType } from 'react'
import { DIRECTIONS, INSTRUMENTS, PENTATONIC_NAMINGS } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Select } from '../../parts/Select.tsx'
import { go } from '../../state/address/address.ts'
import { SETUP_SECTIONS, type SetupSection } from '../../state/address/parts/setup.ts'
import { keepSetting } from '../../state/kept/keep-setting.ts'
import { CLEFS, LOOKS } from '../../state/kept/settings.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import type { ViewProps } from '../view.ts'
import { Backups } from './Backups.tsx'
import { Ears } from './Ears.tsx'
import { Schools } from './Schools.tsx'
import styles from './SetupView.module.css'
import { Strings } from './Strings.tsx'
import { Telephones } from './Telephones.tsx'

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

const Instrument = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { instrument, clef, naming, direction } = openChart.settings
  return (
    <section className={styles.block} aria-label="Pitch and names">
      <h2>Pitch and names</h2>
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
    </section>
  )
}

const Look = ({ openChart }: { readonly openChart: OpenChart }) => {
  const { look, keys } = openChart.settings
  return (
    <section className={styles.block} aria-label="Look and keys">
      <h2>Look and keys</h2>
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
  )
}

const Care = () => (
  <section className={styles.care} aria-label="Take care">
    <h2>Take care</h2>
    <ul>
      <li>Warm up before you play fast or loud.</li>
      <li>Take a break every half hour, away from the instrument.</li>
      <li>Stop at pain or tingling. If it comes back, ask a teacher or a clinician, not a program.</li>
      <li>Keep the level low, in headphones above all: lost hearing does not come back.</li>
    </ul>
  </section>
)

const SECTIONS: Readonly<
  Record<SetupSection, { readonly label: string; readonly Part: ComponentType<{ readonly openChart: OpenChart }> }>
> = {
  instrument: { label: 'Pitch and names', Part: Instrument },
  school: { label: 'School', Part: Schools },
  ears: { label: 'My ears', Part: Ears },
  strings: { label: 'Strings', Part: Strings },
  look: { label: 'Look and keys', Part: Look },
  telephones: { label: 'Telephones', Part: Telephones },
  backup: { label: 'Backup', Part: Backups },
  care: { label: 'Take care', Part: Care },
}

/** Instrument, names, school, ears, strings, look, keys; and how to practise without being hurt: a section at a time. */
const SetupView = ({ address, openChart }: ViewProps) => {
  const { Part } = SECTIONS[address.section]
  return (
    <div className={styles.setup}>
      <div className={styles.sections}>
        <h1>Set-up</h1>
        <nav aria-label="Sections">
          {SETUP_SECTIONS.map((s) => (
            <Button key={s} tone="quiet" pressed={s === address.section} onClick={() => go({ section: s })}>
              {SECTIONS[s].label}
            </Button>
          ))}
        </nav>
      </div>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must be reached by keys */}
      <div className={styles.part} tabIndex={0}>
        <Part openChart={openChart} />
      </div>
    </div>
  )
}

export default SetupView
