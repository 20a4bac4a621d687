import { useStore } from '@nanostores/react'
import { Button } from '../parts/Button.tsx'
import type { Address } from '../state/address/address.ts'
import { $notice } from '../state/page/notices.ts'
import { undoLast } from '../state/shell/undoing.ts'
import styles from './Notices.module.css'
import { Unkept } from './Unkept.tsx'

/** What just happened, with its undo; and what waits to be kept. */
export const Notices = ({ address }: { readonly address: Address }) => {
  const notice = useStore($notice)
  return (
    <div className={styles.place}>
      <Unkept address={address} />
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
