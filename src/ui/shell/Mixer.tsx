import { CHANNELS, type Channel, type Mix } from '../../sound/score.ts'
import { Button } from '../parts/Button.tsx'
import { setMix } from '../state/sound/playing.ts'
import styles from './BandPanel.module.css'

const NAMES: Readonly<Record<Channel, string>> = {
  line: 'line',
  bass: 'bass',
  chords: 'chords',
  drums: 'drums',
  click: 'click',
}

const turned = (all: readonly Channel[], one: Channel): readonly Channel[] =>
  all.includes(one) ? all.filter((c) => c !== one) : [...all, one]

/** How loud the line and each of the band is; each can rest, or be heard alone. */
export const Mixer = ({ mix }: { readonly mix: Mix }) => (
  <ul className={styles.mixer} aria-label="Levels">
    {CHANNELS.map((c) => (
      <li key={c}>
        <label htmlFor={`level-${c}`}>{NAMES[c]}</label>
        <input
          id={`level-${c}`}
          type="range"
          min={0}
          max={100}
          value={Math.round(mix.levels[c] * 100)}
          onChange={(e) => setMix({ ...mix, levels: { ...mix.levels, [c]: Number(e.target.value) / 100 } })}
        />
        <Button
          pressed={mix.muted.includes(c)}
          aria-label={`${NAMES[c]} rests`}
          onClick={() => setMix({ ...mix, muted: turned(mix.muted, c) })}
        >
          rests
        </Button>
        <Button
          pressed={mix.solo.includes(c)}
          aria-label={`${NAMES[c]} alone`}
          onClick={() => setMix({ ...mix, solo: turned(mix.solo, c) })}
        >
          alone
        </Button>
      </li>
    ))}
  </ul>
)
