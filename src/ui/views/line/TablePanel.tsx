import { toGlyphs } from '../../../core/index.ts'
import { AUDIT_HEADS, auditRows } from './audit-table.ts'
import type { SideProps } from './LineSides.tsx'
import styles from './LineView.module.css'

/** The line as a table: what the band shows, to be read. */
export const TablePanel = ({ taken, current }: Pick<SideProps, 'taken' | 'current'>) => (
  <table className={styles.table}>
    <thead>
      <tr>
        {AUDIT_HEADS.map((h) => (
          <th key={h} scope="col">
            {h}
          </th>
        ))}
      </tr>
    </thead>
    <tbody>
      {auditRows(taken).map((row, i) => (
        <tr key={row[0]} aria-current={i === current ? 'true' : undefined}>
          {row.map((cell, k) => (
            <td key={AUDIT_HEADS[k]}>{toGlyphs(cell)}</td>
          ))}
        </tr>
      ))}
    </tbody>
  </table>
)
