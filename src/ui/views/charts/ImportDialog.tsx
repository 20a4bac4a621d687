import { useStore } from '@nanostores/react'
import { toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Dialog } from '../../parts/Dialog.tsx'
import { Select } from '../../parts/Select.tsx'
import { $importing, dropImported, keepImported, type ReadChart, readIn } from '../../state/charts/importing.ts'
import styles from './ImportDialog.module.css'

const FORMAT_NAMES = { text: 'chart text', musicxml: 'MusicXML', abc: 'ABC', midi: 'MIDI' } as const

const Found = ({ found, file }: { readonly found: ReadChart; readonly file: File }) => {
  const { read, leftOut, tunes, chosen } = found
  const facts = [
    `${read.bars} bars`,
    `${read.chords} chords`,
    read.key ? toGlyphs(read.key) : 'no key named',
    read.metre,
    `tempo ${read.tempo}`,
    ...(read.pickup > 0 ? [`a pickup of ${read.pickup}`] : []),
    ...(read.sections.length > 0 ? [`sections ${read.sections.join(', ')}`] : []),
  ]
  return (
    <div className={styles.found}>
      {tunes && (
        <Select
          label="Tune"
          value={String(chosen)}
          options={tunes.flatMap(({ title, chords }, i) =>
            chords > 0 ? [{ value: String(i), label: `${i + 1}. ${title}` }] : [],
          )}
          onPick={(tune) => void readIn(file, Number(tune))}
        />
      )}
      <h3>{found.title}</h3>
      <p>
        Read as {FORMAT_NAMES[found.format]}: {facts.join(' · ')}.
      </p>
      {leftOut.length > 0 ? (
        <section aria-label="Left out">
          <h4>Left out</h4>
          <ul className={styles.leftOut}>
            {leftOut.map((l) => (
              <li key={l.what}>
                {toGlyphs(l.what)}: {l.why}
              </li>
            ))}
          </ul>
        </section>
      ) : (
        <p>Nothing was left out.</p>
      )}
      <pre className={styles.text}>{found.text}</pre>
      <div className={styles.buttons}>
        <Button tone="strong" onClick={() => void keepImported()}>
          Keep it
        </Button>
        <Button onClick={dropImported}>Leave it</Button>
      </div>
    </div>
  )
}

/** What a file holds and what was left out of it, before anything is kept. */
export const ImportDialog = () => {
  const importing = useStore($importing)
  const { file, answer = null } = importing ?? {}
  return (
    <Dialog title={`From ${file?.name ?? ''}`} open={importing !== null} onClose={dropImported}>
      {answer === null && <p role="status">Reading …</p>}
      {file && answer?.ok && <Found found={answer.value} file={file} />}
      {answer && !answer.ok && (
        <div role="alert" className={styles.found}>
          <p>{answer.detail}</p>
          <p>Nothing was kept, and nothing changed.</p>
        </div>
      )}
    </Dialog>
  )
}
