import { type Reading, toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { Table } from '../../parts/Table.tsx'
import { copyTable } from '../../state/page/copying.ts'
import styles from './NoteTable.module.css'

const HEADS = ['Note', 'Heard as', 'Degree', 'Role', 'Fade', 'Best way out'] as const

const rowsOf = (reading: Reading): readonly (readonly string[])[] =>
  reading.notes.map((n) => {
    const best = n.exits[0]
    const way = best ? `${best.how} to ${best.to.name}, the ${best.degree}` : reading.place.next ? 'none' : '–'
    return [n.note.name, n.heard.name, n.degree, n.rub ? `${n.role}, rub` : n.role, String(n.fade), way].map(toGlyphs)
  })

const titleOf = ({ overlay, place }: Reading): string =>
  `${overlay.name} over ${place.chord.symbol}${place.next ? ` to ${place.next.symbol}` : ''}`

/** The slope view as text. */
export const NoteTable = ({ reading }: { readonly reading: Reading }) => (
  <div className={styles.frame}>
    <Table
      className={styles.table}
      caption={{ text: toGlyphs(titleOf(reading)), className: styles.caption }}
      heads={HEADS}
      rows={rowsOf(reading)}
    />
    <Button onClick={() => void copyTable({ title: titleOf(reading), heads: HEADS, rows: rowsOf(reading) })}>
      Copy as text
    </Button>
  </div>
)
