import { useStore } from '@nanostores/react'
import { toGlyphs } from '../../core/index.ts'
import { Button } from '../parts/Button.tsx'
import { $unkept, dropHeld, keepHeld } from '../stores/kept.ts'
import { $notice } from '../stores/notices.ts'
import { undoLast } from '../stores/undoing.ts'
import styles from './Notices.module.css'

/** What just happened, with its undo; and an idea that waits to be kept. */
export const Notices = () => {
  const notice = useStore($notice)
  const held = useStore($unkept)
  return (
    <div className={styles.place}>
      {held && (
        <section className={styles.notice} aria-label="Held idea">
          <span>
            Not kept yet: {toGlyphs(held.overlay)} over {toGlyphs(held.chord)}
          </span>
          <Button onClick={() => void keepHeld()}>Keep it now</Button>
          <Button onClick={dropHeld}>Drop it</Button>
        </section>
      )}
      <div role="status" className={styles.status}>
        {notice && (
          <div className={styles.notice}>
            <span>{notice.text}</span>
            {notice.offer === 'undo' && <Button onClick={() => void undoLast()}>Take it back</Button>}
          </div>
        )}
      </div>
    </div>
  )
}
