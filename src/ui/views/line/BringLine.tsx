import { useState } from 'react'
import { Button } from '../../parts/Button.tsx'
import { Dialog } from '../../parts/Dialog.tsx'
import { bringLine } from '../../stores/lines.ts'
import styles from './LineView.module.css'

/** A line from elsewhere: a tune in ABC or a score in MusicXML, pasted or from a file. */
export const BringLine = () => {
  const [open, setOpen] = useState(false)
  const [name, setName] = useState('A line')
  const [text, setText] = useState('')
  const keep = async () => {
    if (await bringLine(name.trim() || 'A line', text)) {
      setOpen(false)
      setText('')
    }
  }
  return (
    <>
      <Button onClick={() => setOpen(true)}>Bring a line</Button>
      <Dialog title="Bring a line" open={open} onClose={() => setOpen(false)}>
        <div className={styles.bring}>
          <label>
            Name
            <input value={name} maxLength={200} onChange={(e) => setName(e.target.value)} />
          </label>
          <label>
            ABC or MusicXML
            <textarea rows={10} value={text} onChange={(e) => setText(e.target.value)} spellCheck={false} />
          </label>
          <label>
            or a file
            <input
              type="file"
              accept=".abc,.xml,.musicxml,.txt"
              onChange={(e) => {
                const file = e.target.files?.[0]
                if (!file) return
                setName(file.name.replace(/\.\w+$/, ''))
                void file.text().then(setText)
              }}
            />
          </label>
          <p>
            It begins on the first beat of the chart, in concert pitch. Of several voices the first is the line; of
            notes that begin together, the highest.
          </p>
          <Button tone="strong" disabled={text.trim() === ''} onClick={() => void keep()}>
            Keep it
          </Button>
        </div>
      </Dialog>
    </>
  )
}
