import { useState } from 'react'
import {
  DEFAULT_WEIGHTS,
  placeOf,
  type Reading,
  readChord,
  readOver,
  readOverlay,
  toGlyphs,
  type Weights,
} from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { Button } from '../../parts/Button.tsx'
import { Slider } from '../../parts/Slider.tsx'
import { keepSetting, slideSetting } from '../../state/kept/keep-setting.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './SetupView.module.css'

type Plain = Exclude<keyof Weights, 'altered'>
const PLAIN: readonly (readonly [Plain, string])[] = [
  ['ninth', 'A 9'],
  ['extension', 'An 11 or 13'],
  ['sharpEleven', 'A ♯11 that is an extension'],
  ['awayFromHome', 'More, where the home scale lacks it'],
  ['alteredHeld', 'Less, where an altered note is held'],
  ['suspensionHome', 'A suspension in the home scale'],
  ['suspensionAway', 'A suspension from elsewhere'],
  ['outside', 'Outside'],
  ['denied', 'Outside, the symbol denies it'],
  ['rubRoot', 'Outside, a rub on the root'],
  ['rubGuide', 'Outside, a rub on a guide tone'],
  ['meanShare', 'Share of the mean against the worst'],
]
const ALTERED = ['#11', 'b13', '#9', 'b9'] as const

const sample = (openChart: OpenChart, weights: Weights): Reading | null => {
  const here = openChart.current?.reading
  if (here) return readOver(here.overlay, here.place, weights)
  const [chord, next, overlay] = [readChord('Eb7'), readChord('Abmaj7'), readOverlay('B dorian')]
  if (!chord.ok || !next.ok || !overlay.ok) return null
  return readOver(overlay.value, placeOf(chord.value, next.value, openChart.settings.school), weights)
}

/** How far out each kind of note counts, by ear; the overlay in view answers while a slider moves. */
export const Ears = ({ openChart }: { readonly openChart: OpenChart }) => {
  const kept = openChart.settings.weights
  const [moving, setMoving] = useState<Weights | null>(null)
  const weights = moving ?? kept
  const before = sample(openChart, kept)
  const now = sample(openChart, weights)
  const settle = (to: Weights) => {
    slideSetting('weights', to)
    setMoving((now) => (now === null || JSON.stringify(now) === JSON.stringify(to) ? null : now))
  }
  const moved = JSON.stringify(weights) !== JSON.stringify(DEFAULT_WEIGHTS)
  return (
    <section className={styles.block} aria-label="My ears">
      <h2>My ears</h2>
      <p className={styles.soft}>How far out each kind of note sounds to you, 0 to 100. Chord tones stay at 0.</p>
      {now && before && (
        <p className={styles.live} aria-live="polite">
          <Multiple reading={now} /> {toGlyphs(now.overlay.name)} over {toGlyphs(now.place.chord.symbol)}: fade{' '}
          <strong>{now.fade}</strong>
          {now.fade !== before.fade ? `, before ${before.fade}` : ''}
        </p>
      )}
      <div className={styles.sliders}>
        {PLAIN.map(([name, label]) => (
          <Slider
            key={name}
            label={label}
            value={weights[name]}
            onChange={(v) => setMoving({ ...weights, [name]: v })}
            onSettle={(v) => settle({ ...weights, [name]: v })}
          />
        ))}
        {ALTERED.map((d) => (
          <Slider
            key={d}
            label={toGlyphs(`An altered ${d}`)}
            value={weights.altered[d]}
            onChange={(v) => setMoving({ ...weights, altered: { ...weights.altered, [d]: v } })}
            onSettle={(v) => settle({ ...weights, altered: { ...weights.altered, [d]: v } })}
          />
        ))}
      </div>
      <Button disabled={!moved} onClick={() => keepSetting('weights', DEFAULT_WEIGHTS)}>
        Back to the usual ears
      </Button>
    </section>
  )
}
