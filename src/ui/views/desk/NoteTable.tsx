import { type Reading, toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { say } from '../../stores/notices.ts'
import styles from './NoteTable.module.css'

const HEADS = ['Note', 'Heard as', 'Degree', 'Role', 'Fade', 'Best way out'] as const

const rowsOf = (reading: Reading): readonly (readonly string[])[] =>
  reading.notes.map((n) => {
    const best = n.exits[0]
    const way = best ? `${best.how} to ${best.to.name}, the ${best.degree}` : reading.place.next ? 'none' : '–'
    return [n.note.name, n.heard.name, n.degree, n.rub ? `${n.role}, rub` : n.role, String(n.fade), way].map(toGlyphs)
  })

const copy = async (reading: Reading): Promise<void> => {
  const text = [HEADS, ...rowsOf(reading)].map((r) => r.join('\t')).join('\n')
  await navigator.clipboard.writeText(text).then(
    () => say('Copied as text.'),
    () => say('This browser did not let it be copied.'),
  )
}

/** The slope view as text. */
export const NoteTable = ({ reading }: { readonly reading: Reading }) => (
  <div className={styles.frame}>
    <table className={styles.table}>
      <caption className={styles.caption}>
        {toGlyphs(reading.overlay.name)} over {toGlyphs(reading.place.chord.symbol)}
        {reading.place.next ? ` to ${toGlyphs(reading.place.next.symbol)}` : ''}
      </caption>
      <thead>
        <tr>
          {HEADS.map((h) => (
            <th key={h} scope="col">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {rowsOf(reading).map(([name, ...cells]) => (
          <tr key={name}>
            <th scope="row">{name}</th>
            {cells.map((cell, i) => (
              <td key={HEADS[i + 1]}>{cell}</td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
    <Button onClick={() => void copy(reading)}>Copy as text</Button>
  </div>
)
