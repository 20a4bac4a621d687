import { type LineAnalysis, type School, verdictOf } from '../../../core/index.ts'
import { beatText } from '../../figures/words.ts'
import type { LineRow } from '../../state/kept/row-types.ts'
import { isDisputed } from '../../state/line/verdict.ts'

export const AUDIT_HEADS = ['Note', 'Bar', 'Beat', 'Name', 'Degree', 'Role', 'Fade', 'Job'] as const

/** Everything about the notes of a line, a row each. */
export const auditRows = ({ audit }: LineAnalysis): readonly (readonly string[])[] =>
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
export const auditText = (row: LineRow, lineAnalysis: LineAnalysis, school: School) => ({
  title: [
    row.name,
    ...verdictOf(lineAnalysis.audit, school).map((s) => (isDisputed(row, s) ? `${s.text} You: not so.` : s.text)),
  ].join('\n'),
  heads: AUDIT_HEADS,
  rows: auditRows(lineAnalysis),
})
