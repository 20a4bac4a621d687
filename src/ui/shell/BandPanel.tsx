import { useStore } from '@nanostores/react'
import { useState } from 'react'
import { type Chart, FEELS, feelOf, SWING_RANGE, swingOf } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { Select } from '../parts/Select.tsx'
import { SettlingSlider } from '../parts/Slider.tsx'
import type { Desk } from '../stores/desk.ts'
import { $bandOpen, closeBand } from '../stores/dialogs.ts'
import { type Kept, keepSetting } from '../stores/kept.ts'
import { setFeel, setLoop } from '../stores/looping.ts'
import type { Place } from '../stores/place.ts'
import { $rendering, cancelWav, saveWav } from '../stores/saving.ts'
import { HEAR_TEMPO, HEARD_AS } from '../stores/settings.ts'
import styles from './BandPanel.module.css'
import { Mixer } from './Mixer.tsx'

interface Props {
  readonly place: Place
  readonly kept: Kept
  readonly desk: Desk
}

const HEARD_NAMES = { up: 'upward', down: 'downward', chord: 'as a chord', triads: 'triad by triad' } as const

const Loop = ({ place, chart }: { readonly place: Place; readonly chart: Chart }) => {
  const numbers = chart.bars.map((b) => b.number)
  const loop = place.loop ?? { from: numbers[0] ?? 1, to: numbers.at(-1) ?? 1 }
  const options = numbers.map((n) => ({ value: String(n), label: `bar ${n}` }))
  return (
    <div className={styles.pair}>
      <Select
        label="From ["
        value={String(loop.from)}
        options={options}
        onPick={(v) => setLoop({ from: Number(v), to: Math.max(Number(v), loop.to) })}
      />
      <Select
        label="to ]"
        value={String(loop.to)}
        options={options}
        onPick={(v) => setLoop({ from: Math.min(Number(v), loop.from), to: Number(v) })}
      />
    </div>
  )
}

const ROUNDS = { '1': 'once', '2': 'twice round', '4': 'four times round' } as const

const Files = ({ place, kept, desk }: Props) => {
  const rendering = useStore($rendering)
  const [rounds, setRounds] = useState<keyof typeof ROUNDS>('1')
  const chart = place.sketch === null ? kept.chart : null
  const query = new URLSearchParams()
  if (place.feel) query.set('feel', place.feel)
  if (place.tempo) query.set('tempo', String(place.tempo))
  return (
    <div className={styles.files}>
      {rendering === null ? (
        <>
          <Button onClick={() => void saveWav(desk.title || 'Crossfade', Number(rounds))}>Save as WAV</Button>
          <Select
            label="How often round"
            labelHidden
            value={rounds}
            options={Object.entries(ROUNDS).map(([value, label]) => ({ value: value as keyof typeof ROUNDS, label }))}
            onPick={setRounds}
          />
        </>
      ) : (
        <>
          <progress aria-label="Making the sound file" max={1} value={rendering} />
          <Button onClick={cancelWav}>Stop making it</Button>
        </>
      )}
      {chart && (
        <a href={`/api/v1/charts/${chart.id}/band?${query}`} download>
          The band as MIDI
        </a>
      )}
    </div>
  )
}

/** The band: how it plays, what it plays round, and how loud each is. It stands over the rail; everything else goes on. */
export const BandPanel = ({ place, kept, desk }: Props) => {
  const open = useStore($bandOpen)
  const { chart, settings } = desk
  if (!open || !chart) return null
  const feel = place.feel ?? feelOf(chart)
  const swing = swingOf(feel, place.tempo ?? chart.tempo, settings.swing)
  return (
    <section className={styles.panel} aria-label="Band">
      <div className={styles.column}>
        <Select
          label="Feel"
          value={feel}
          options={FEELS.map((f) => ({ value: f, label: f }))}
          onPick={(f) => setFeel(f)}
        />
        {swing.swung === null ? (
          <p className={styles.soft}>Even {feel === 'free drone' ? 'and without time' : 'eighths'}.</p>
        ) : (
          <SettlingSlider
            label={`swing of the ${swing.swung}, 50 even, 67 a triplet`}
            least={SWING_RANGE.least}
            most={SWING_RANGE.most}
            value={swing.amount}
            onSettle={(v) => void keepSetting('swing', v)}
          />
        )}
        <label className={styles.check}>
          <input
            type="checkbox"
            checked={settings.countIn}
            onChange={(e) => void keepSetting('countIn', e.target.checked)}
          />
          Count a bar in
        </label>
        <label className={styles.check}>
          <input
            type="checkbox"
            checked={settings.follow}
            onChange={(e) => void keepSetting('follow', e.target.checked)}
          />
          The chord in view follows the music
        </label>
      </div>
      <div className={styles.column}>
        <Loop place={place} chart={chart} />
        <Files place={place} kept={kept} desk={desk} />
        <div className={styles.pair}>
          <Select
            label="An overlay alone (Enter)"
            value={settings.hearAs}
            options={HEARD_AS.map((h) => ({ value: h, label: HEARD_NAMES[h] }))}
            onPick={(h) => void keepSetting('hearAs', h)}
          />
          <SettlingSlider
            label="its tempo"
            least={HEAR_TEMPO.least}
            most={HEAR_TEMPO.most}
            value={settings.hearTempo}
            onSettle={(v) => void keepSetting('hearTempo', v)}
          />
        </div>
      </div>
      <div className={styles.column}>
        <Mixer kept={settings.mix} />
        <p className={styles.soft}>
          Keep it low, rest your ears; ringing or dull hearing means stop, and ask a doctor.
        </p>
      </div>
      <Button className={styles.close ?? ''} tone="quiet" aria-label="Close the band" title="Esc" onClick={closeBand}>
        ×
      </Button>
    </section>
  )
}
