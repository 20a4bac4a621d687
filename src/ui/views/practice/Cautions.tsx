import { useEffect, useState } from 'react'
import { Button } from '../../parts/Button.tsx'
import { readStored, writeStored } from '../../state/kept/browser-store.ts'
import styles from './PracticeView.module.css'

const SEEN = 'crossfade-cautions'
const today = (): string => new Date().toDateString()

/** Once a day, before the first session. */
export const Cautions = () => {
  const [seen, setSeen] = useState(true)
  useEffect(() => setSeen(readStored<string>(SEEN) === today()), [])
  if (seen) return null
  return (
    <aside className={styles.cautions} aria-label="Before you begin">
      <p>
        Warm up first, and take a break every twenty minutes. <strong>Stop at pain, numbness or tingling.</strong> Keep
        the level low; ringing or dull hearing means stop. A teacher or a clinician knows more than a program.
      </p>
      <Button
        onClick={() => {
          writeStored(SEEN, today())
          setSeen(true)
        }}
      >
        Understood
      </Button>
    </aside>
  )
}
