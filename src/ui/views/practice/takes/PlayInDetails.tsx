import { useStore } from '@nanostores/react'
import { useEffect } from 'react'
import { COMPASSES, PLANTED } from '../../../../core/index.ts'
import { Button } from '../../../parts/Button.tsx'
import { Select } from '../../../parts/Select.tsx'
import { SettlingSlider } from '../../../parts/Slider.tsx'
import { FIRST } from '../../../state/page/first.ts'
import { $calibrating, calibrate, stopCalibrating } from '../../../state/sound/calibrating.ts'
import {
  $learningPedal,
  $unfolded,
  deviceOf,
  GATE,
  LOWS,
  type PlayingIn,
  SURFACES,
  setPlayingIn,
  slidePlayingIn,
  TUNING,
} from '../../../state/takes/manner.ts'
import { $midiNames, watchMidiNames } from '../../../state/takes/midi-names.ts'
import styles from './Takes.module.css'

const ANY = 'any'

const MidiDetails = ({ how }: { readonly how: PlayingIn }) => {
  const names = useStore($midiNames, FIRST)
  const learning = useStore($learningPedal, FIRST)
  useEffect(watchMidiNames, [])
  const all = [...new Set([...(names ?? []), ...(how.device === null ? [] : [how.device])])]
  return (
    <>
      {names === null && <p role="status">This browser gives no MIDI, or it was refused.</p>}
      {names?.length === 0 && <p role="status">No MIDI instrument is connected. Plug one in: it is heard at once.</p>}
      <Select
        label="Instrument"
        value={how.device ?? ANY}
        options={[ANY, ...all].map((n) => ({ value: n, label: n === ANY ? 'any that is connected' : n }))}
        onPick={(v) => setPlayingIn({ device: v === ANY ? null : v })}
      />
      <Select
        label="Channel"
        value={how.channel === null ? ANY : String(how.channel)}
        options={[ANY, ...Array.from({ length: 16 }, (_, i) => String(i + 1))].map((n) => ({ value: n, label: n }))}
        onPick={(v) => setPlayingIn({ channel: v === ANY ? null : Number(v) })}
      />
      <Button pressed={learning} onClick={() => $learningPedal.set(!learning)}>
        {learning ? 'Press the pedal now' : 'Learn its pedal'}
      </Button>
      {how.pedal !== null && (
        <p className={styles.soft}>
          Controller {how.pedal} goes on. <Button onClick={() => setPlayingIn({ pedal: null })}>Forget it</Button>
        </p>
      )}
    </>
  )
}

const MicrophoneDetails = ({ how }: { readonly how: PlayingIn }) => (
  <>
    <Select
      label="Range of"
      value={how.compass ?? ANY}
      options={[{ value: ANY, label: 'any instrument' }, ...COMPASSES.map((c) => ({ value: c.id, label: c.name }))]}
      onPick={(v) => setPlayingIn({ compass: v === ANY ? null : v })}
    />
    <SettlingSlider
      label="A is tuned to (Hz)"
      value={how.tuning}
      least={TUNING.least}
      most={TUNING.most}
      onSettle={(tuning) => slidePlayingIn({ tuning })}
    />
    <SettlingSlider
      label="Softest that counts"
      value={Math.round(how.gate * 1000)}
      least={GATE.least * 1000}
      most={GATE.most * 1000}
      onSettle={(gate) => slidePlayingIn({ gate: gate / 1000 })}
    />
    <p className={styles.soft}>One voice at a time. Wear headphones, or the band is heard again.</p>
  </>
)

const SimulatedDetails = ({ how: { simulated } }: { readonly how: PlayingIn }) => (
  <>
    <Select
      label="On purpose"
      value={simulated.fault ?? 'nothing'}
      options={['nothing', ...PLANTED].map((f) => ({ value: f, label: f }))}
      onPick={(v) => setPlayingIn({ simulated: { ...simulated, fault: PLANTED.find((f) => f === v) ?? null } })}
    />
    <SettlingSlider
      label="Looseness (ms)"
      value={simulated.looseness}
      most={80}
      onSettle={(looseness) => slidePlayingIn({ simulated: { ...simulated, looseness } })}
    />
    <SettlingSlider
      label="Wrong notes (%)"
      value={Math.round(simulated.wrong * 100)}
      most={50}
      onSettle={(wrong) => slidePlayingIn({ simulated: { ...simulated, wrong: wrong / 100 } })}
    />
    <p className={styles.soft}>It plays the route in hand, or the home scales, with a voice of its own.</p>
  </>
)

const KeysDetails = ({ how }: { readonly how: PlayingIn }) => (
  <>
    <Select
      label="On the screen"
      value={how.surface}
      options={SURFACES.map((s) => ({ value: s, label: s === 'keys' ? 'keys' : 'the neck' }))}
      onPick={(v) => setPlayingIn({ surface: SURFACES.find((s) => s === v) ?? 'keys' })}
    />
    <Select
      label="Lowest C"
      value={String(how.low)}
      options={LOWS.map((l) => ({ value: String(l), label: `C${l / 12 - 1}` }))}
      onPick={(v) => setPlayingIn({ low: Number(v) })}
    />
    <p className={styles.soft}>
      While you record, two rows of the computer’s keys play: <kbd>Z</kbd> is the lowest C, <kbd>Q</kbd> the next.
    </p>
  </>
)

/** Tapping along eight clicks tells how late an instrument comes. */
const Calibration = ({ how }: { readonly how: PlayingIn }) => {
  const calibrating = useStore($calibrating, FIRST)
  const device = deviceOf(how)
  const delay = how.delays[device]
  if (calibrating)
    return (
      <p className={styles.calibrating} role="status">
        Play one note on each click: {calibrating.taps} of 8. <Button onClick={stopCalibrating}>Leave it</Button>
      </p>
    )
  return (
    <>
      <Button onClick={() => void calibrate()}>Measure the delay</Button>
      <p className={styles.soft}>
        {delay === undefined ? 'Not measured: none is taken off.' : `${Math.round(delay)} ms are taken off.`}{' '}
        {delay !== undefined && (
          <Button
            onClick={() => {
              const { [device]: _, ...delays } = how.delays
              setPlayingIn({ delays })
            }}
          >
            Forget it
          </Button>
        )}
      </p>
    </>
  )
}

/** What is known of the instrument one plays in. */
export const PlayInDetails = ({ how }: { readonly how: PlayingIn }) => {
  const unfolded = useStore($unfolded, FIRST)
  return (
    <details className={styles.fold} open={unfolded} onToggle={(e) => $unfolded.set(e.currentTarget.open)}>
      <summary>How I play in</summary>
      <div className={styles.details}>
        {how.source === 'keys' && <KeysDetails how={how} />}
        {how.source === 'midi' && <MidiDetails how={how} />}
        {how.source === 'microphone' && <MicrophoneDetails how={how} />}
        {how.source === 'simulated' && <SimulatedDetails how={how} />}
        {how.source !== 'simulated' && <Calibration how={how} />}
      </div>
    </details>
  )
}
