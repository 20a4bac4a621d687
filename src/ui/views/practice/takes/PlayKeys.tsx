import { pitchName } from '../../../figures/words.ts'
import styles from './Takes.module.css'
import { usePressed } from './use-pressed.ts'

const OCTAVES = [0, 1] as const
const TWELVE = Array.from({ length: 12 }, (_, i) => i)

/** Keys to play on in two rows, the black ones over the white; what they sound is in concert, what they say is written. */
export const PlayKeys = ({ low, writtenUp }: { readonly low: number; readonly writtenUp: number }) => {
  const pressed = usePressed()
  return (
    <div className={styles.playKeys} role="group" aria-label="Keys to play on">
      {OCTAVES.map((octave) => (
        <div key={octave} className={styles.octave}>
          {TWELVE.map((at) => {
            const pitch = low + octave * 12 + at
            return (
              <button
                key={pitch}
                type="button"
                tabIndex={-1}
                data-at={at}
                className={styles.key}
                aria-label={pitchName(pitch)}
                {...pressed(pitch - writtenUp)}
              />
            )
          })}
        </div>
      ))}
    </div>
  )
}
