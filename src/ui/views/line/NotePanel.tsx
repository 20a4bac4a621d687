import { toGlyphs } from '../../../core/index.ts'
import { hueClass } from '../../figures/hue.ts'
import { beatText } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import { cutOut, keepCell } from '../../state/line/line-cells.ts'
import type { SideProps } from './LineSides.tsx'
import styles from './LineView.module.css'

const within = (n: number) => (s: { readonly from: number; readonly to: number }) => n >= s.from && n <= s.to

/** The note in view: what it is over its chord, what it does, and how the piece it is in could be heard. */
export const NotePanel = ({ lineAnalysis, current, notes, row, openChart }: SideProps) => {
  const { audit } = lineAnalysis
  const note = audit.notes[current]
  if (!note) return null
  const cell = audit.cells.find(within(current))
  const readings = audit.readings.filter(within(current)).slice(0, 3)
  const stretch = audit.stretches.find(within(current))
  return (
    <div className={styles.notePanel}>
      <h2>
        {toGlyphs(note.name.name)}{' '}
        <span className={styles.soft}>
          note {note.n + 1}, bar {note.bar}, beat {beatText(note.beat)}
        </span>
      </h2>
      <p>
        {note.degree === null
          ? 'No chord sounds here.'
          : `The ${toGlyphs(note.degree)} over ${toGlyphs(note.sounding?.spot.spot.chord.symbol ?? '')}: ${note.role}${note.rub ? ', it rubs' : note.denied ? ', the symbol denies it' : ''}.`}{' '}
        <span className={`${styles.fade} ${hueClass(note.fade)}`}>fade {note.fade}</span>
      </p>
      <p>
        In the line: <strong>{toGlyphs(audit.jobs[current] ?? '')}</strong>
        {cell?.overlay ? `, within notes ${cell.from + 1}–${cell.to + 1}` : ''}.
      </p>
      {cell?.overlay && (
        <div className={styles.pair}>
          <Button onClick={() => keepCell(cell, lineAnalysis, openChart, row.chartId)}>
            Keep {toGlyphs(cell.overlay.name)} as an idea
          </Button>
          <Button onClick={() => cutOut(cell, row, notes)}>Cut it out as a line</Button>
        </div>
      )}
      {stretch && (
        <p>
          Away from home from note {stretch.from + 1} to {stretch.to + 1}: fade {stretch.mean} on the whole,{' '}
          {stretch.peak} at most;{' '}
          {stretch.landing ? `lands on note ${stretch.landing.on + 1}, ${stretch.landing.how}` : 'it does not land'}.
        </p>
      )}
      {readings.length > 0 && (
        <>
          <h3>It could be heard as</h3>
          <ol className={styles.readings}>
            {readings.map((r) => (
              <li key={`${r.heard} ${r.why}`}>
                <strong>{toGlyphs(r.heard)}</strong> <span className={styles.soft}>{toGlyphs(r.why)}</span> {r.score}
              </li>
            ))}
          </ol>
        </>
      )}
    </div>
  )
}
