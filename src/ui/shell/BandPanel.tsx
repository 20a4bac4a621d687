import { useStore } from '@nanostores/react'
import { useState } from 'react'
import { type Chart, FEELS, feelOf, SWING_RANGE, swingOf } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { Select } from '../parts/Select.tsx'
import { SettlingSlider } from '../parts/Slider.tsx'
import type { Address } from '../state/address/address.ts'
import { TEMPO } from '../state/address/parts/band.ts'
import { keepSetting, slideSetting } from '../state/kept/keep-setting.ts'
import type { Kept } from '../state/kept/kept.ts'
import { HEAR_TEMPO, HEARD_AS } from '../state/kept/settings.ts'
import { $bandOpen, closeBand } from '../state/page/dialogs.ts'
import { setFeel, setLoop, setTempoTo } from '../state/sound/looping.ts'
import { $rendering, cancelWav, saveWav } from '../state/sound/saving.ts'
import type { OpenChart } from '../state/tune/open-chart.ts'
import styles from './BandPanel.module.css'
import { Mixer } from './Mixer.tsx'

interface Props {
  readonly address: Address
  readonly kept: Kept
  readonly openChart: OpenChart
}

const HEARD_NAMES = { up: 'upward', down: 'downward', chord: 'as a chord', triads: 'triad by triad' } as const

const Loop = ({ address, chart }: { readonly address: Address; readonly chart: Chart }) => {
  const numbers = chart.bars.map((b) => b.number)
  const loop = address.loop ?? { from: numbers[0] ?? 1, to: numbers.at(-1) ?? 1 }
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

const Files = ({ address, kept, openChart }: Props) => {
  const rendering = useStore($rendering)
  const [rounds, setRounds] = useState<keyof typeof ROUNDS>('1')
  const chart = address.sketch === null ? kept.chart : null
  const query = new URLSearchParams({ school: JSON.stringify(openChart.settings.school) })
  if (address.feel) query.set('feel', address.feel)
  if (address.tempo) query.set('tempo', String(address.tempo))
  return (
    <div className={styles.files}>
      {rendering === null ? (
        <>
          <Button onClick={() => void saveWav(openChart.title || 'Crossfade', Number(rounds))}>Save as WAV</Button>
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
export const BandPanel = ({ address, kept, openChart }: Props) => {
  const open = useStore($bandOpen)
  const { chart, settings } = openChart
  if (!open || !chart) return null
  const feel = address.feel ?? feelOf(chart)
  const swing = swingOf(feel, address.tempo ?? chart.tempo, settings.swing)
  return (
    <section className={styles.panel} aria-label="Band">
      <div className={styles.column}>
        <div className={styles.tempo}>
          <SettlingSlider
            label="tempo of the band"
            least={TEMPO.least}
            most={TEMPO.most}
            value={address.tempo ?? chart.tempo}
            onSettle={setTempoTo}
          />
        </div>
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
            onSettle={(v) => slideSetting('swing', v)}
          />
        )}
        <label className={styles.check}>
          <input
            type="checkbox"
            checked={settings.countIn}
            onChange={(e) => keepSetting('countIn', e.target.checked)}
          />
          Count a bar in
        </label>
        <label className={styles.check}>
          <input type="checkbox" checked={settings.follow} onChange={(e) => keepSetting('follow', e.target.checked)} />
          The chord in view follows the music
        </label>
      </div>
      <div className={styles.column}>
        <Loop address={address} chart={chart} />
        <Files address={address} kept={kept} openChart={openChart} />
        <div className={styles.pair}>
          <Select
            label="An overlay alone (Enter)"
            value={settings.hearAs}
            options={HEARD_AS.map((h) => ({ value: h, label: HEARD_NAMES[h] }))}
            onPick={(h) => keepSetting('hearAs', h)}
          />
          <SettlingSlider
            label="its tempo"
            least={HEAR_TEMPO.least}
            most={HEAR_TEMPO.most}
            value={settings.hearTempo}
            onSettle={(v) => slideSetting('hearTempo', v)}
          />
        </div>
      </div>
      <div className={styles.column}>
        <Mixer mix={settings.mix} />
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
