import { type ReactNode, useEffect, useRef } from 'react'
import { Button } from './Button.tsx'
import styles from './Dialog.module.css'

interface Props {
  readonly title: string
  readonly open: boolean
  readonly onClose: () => void
  readonly children: ReactNode
}

/** The browser's own dialog: it keeps the focus in and Esc closes it. */
export const Dialog = ({ title, open, onClose, children }: Props) => {
  const dialog = useRef<HTMLDialogElement>(null)
  useEffect(() => {
    if (open) dialog.current?.showModal()
    else dialog.current?.close()
  }, [open])
  // The browser tells of a closing only after it: what was opened anew meanwhile stays.
  const closed = () => {
    if (open && !dialog.current?.open) onClose()
  }
  return (
    <dialog
      ref={dialog}
      className={styles.dialog}
      aria-label={title}
      onCancel={(e) => {
        e.preventDefault()
        onClose()
      }}
      onClose={closed}
    >
      <header className={styles.head}>
        <h2>{title}</h2>
        <Button onClick={onClose}>Close</Button>
      </header>
      {open && children}
    </dialog>
  )
}
