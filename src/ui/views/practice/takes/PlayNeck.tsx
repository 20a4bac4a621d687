import { useState } from 'react'
import { tuningFrom } from '../../../figures/neck.ts'
import { pitchName } from '../../../figures/words.ts'
import { Select } from '../../../parts/Select.tsx'
import styles from './Takes.module.css'
import { usePressed } from './use-pressed.ts'

const FRETS = [0, 1, 2, 3, 4, 5] as const
const FROM = [0, 3, 5, 7, 9, 12] as const

/** Some frets of the neck to play on, the highest string on top; what they sound and say is in concert. */
export const PlayNeck = ({ tuning }: { readonly tuning: string }) => {
  const [from, setFrom] = useState(0)
  const pressed = usePressed()
  const strings = tuningFrom(tuning).toReversed()
  return (
    <div className={styles.neck}>
      <div role="group" aria-label="Neck to play on" className={styles.strings}>
        {strings.map((open) => (
          <div key={open} className={styles.string}>
            {FRETS.map((fret) => (
              <button
                key={fret}
                type="button"
                tabIndex={-1}
                className={styles.fret}
                aria-label={`${pitchName(open + from + fret)}, fret ${from + fret}`}
                {...pressed(open + from + fret)}
              >
                {from + fret}
              </button>
            ))}
          </div>
        ))}
      </div>
      <Select
        label="From fret"
        value={String(from)}
        options={FROM.map((f) => ({ value: String(f), label: f === 0 ? 'the open strings' : String(f) }))}
        onPick={(v) => setFrom(Number(v))}
      />
    </div>
  )
}
