import { type Reading, toGlyphs } from '../../core/index.ts'
import { Multiple } from './Multiple.tsx'
import styles from './RouteSheet.module.css'
import { beatText } from './words.ts'

/** A step on paper; `goesOn` where the overlay of the step before is kept. */
export interface SheetStep {
  readonly bar: number
  readonly beat: number
  readonly chord: string
  readonly reading: Reading
  readonly goesOn: boolean
}

interface Props {
  readonly title: string
  readonly under: string
  readonly badge: string
  readonly steps: readonly SheetStep[]
}

/** A route on one page: each step with its chord, its overlay's notes and its small picture; light and grey-safe. */
export const RouteSheet = ({ title, under, badge, steps }: Props) => (
  <div className={styles.sheet} data-sheet>
    <header className={styles.top}>
      <div>
        <h1>{toGlyphs(title)}</h1>
        <p>{under}</p>
      </div>
      <p>{badge}</p>
    </header>
    <ol className={styles.steps}>
      {steps.map((s) => (
        <li key={`${s.bar} ${s.beat}`} className={styles.step}>
          <span className={styles.bar}>
            {s.bar}
            {s.beat > 1 ? <small> beat {beatText(s.beat)}</small> : null}
          </span>
          <strong className={styles.chord}>{toGlyphs(s.chord)}</strong>
          <span className={styles.what}>
            <strong>{s.goesOn ? 'goes on' : toGlyphs(s.reading.overlay.name)}</strong>
            {!s.goesOn && <span>{s.reading.overlay.notes.map((n) => toGlyphs(n.name)).join(' ')}</span>}
          </span>
          <Multiple reading={s.reading} />
          <span className={styles.figures}>
            {s.reading.fade}
            <small>{s.reading.landing ?? '–'}</small>
          </span>
        </li>
      ))}
    </ol>
    <p className={styles.foot}>
      Right: fade, and under it how it lands. Flat chord tone, arched extension, slanted altered, hooked suspension,
      torn outside. Slow and clean first; rest, stop at pain; ask a teacher.
    </p>
  </div>
)
