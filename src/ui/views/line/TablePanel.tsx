import { toGlyphs } from '../../../core/index.ts'
import { Table } from '../../parts/Table.tsx'
import { AUDIT_HEADS, auditRows } from './audit-table.ts'
import type { SideProps } from './LineSides.tsx'
import styles from './LineView.module.css'

/** The line as a table: what the band shows, to be read. */
export const TablePanel = ({ lineAnalysis, current }: Pick<SideProps, 'lineAnalysis' | 'current'>) => (
  <Table
    className={styles.table}
    heads={AUDIT_HEADS}
    rows={auditRows(lineAnalysis).map((row) => row.map(toGlyphs))}
    current={current}
  />
)
