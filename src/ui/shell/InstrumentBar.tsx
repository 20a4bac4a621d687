import { INSTRUMENTS } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { keepSetting } from '../state/kept/keep-setting.ts'
import styles from './InstrumentBar.module.css'

/** Asked once, without blocking: concert pitch until it is answered. */
export const InstrumentBar = () => (
  <section className={styles.bar} aria-label="Your instrument">
    <p>
      Which pitch do you read? <span className={styles.then}>Everything is then shown, and typed, in it.</span>
    </p>
    <div className={styles.choices}>
      {INSTRUMENTS.map((i) => (
        <Button key={i.id} aria-label={i.name} title={i.name} onClick={() => keepSetting('instrument', i.id)}>
          {i.short}
        </Button>
      ))}
    </div>
  </section>
)
