import { type School, type Taken, verdictOf } from '../../../core/index.ts'
import { beatText } from '../../figures/words.ts'
import type { LineRow } from '../../stores/rows.ts'
import { isDisputed } from '../../stores/verdict.ts'

export const AUDIT_HEADS = ['Note', 'Bar', 'Beat', 'Name', 'Degree', 'Role', 'Fade', 'Job'] as const

/** Everything about the notes of a line, a row each. */
export const auditRows = ({ audit }: Taken): readonly (readonly string[])[] =>
  audit.notes.map((n, i) => [
    String(n.n + 1),
    String(n.bar),
    beatText(n.beat),
    n.name.name,
    n.degree ?? '',
    n.role ?? '',
    String(n.fade),
    audit.jobs[i] ?? '',
  ])

/** The same to be copied, under the verdict. */
export const auditText = (row: LineRow, taken: Taken, school: School) => ({
  title: [
    row.name,
    ...verdictOf(taken.audit, school).map((s) => (isDisputed(row, s) ? `${s.text} You: not so.` : s.text)),
  ].join('\n'),
  heads: AUDIT_HEADS,
  rows: auditRows(taken),
})
