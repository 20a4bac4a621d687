import { useEffect, useState } from 'react'
import { KEY_ORDER_NAMES, type Line, pitchClass, plainNote, toGlyphs } from '../../../core/index.ts'
import { type ReuseAsk, type Reused, reuseInWorker } from '../../../workers/start.ts'
import { DraftBand } from '../../figures/DraftBand.tsx'
import { howMany } from '../../figures/words.ts'
import { Button } from '../../parts/Button.tsx'
import type { KeptNote, LineRow } from '../../state/kept/row-types.ts'
import { sounded } from '../../state/line/lines.ts'
import { keepStudy } from '../../state/line/study.ts'
import { keepBeside } from '../../state/line/varying.ts'
import { textHere } from '../../state/tune/concert.ts'
import type { ViewProps } from '../view.ts'
import styles from './Make.module.css'

interface Props extends ViewProps {
  readonly row: LineRow
  readonly notes: readonly KeptNote[]
}

const RANGE = [40, 90] as const
const MOST_SHOWN = 24

const useReused = ({ address, kept, openChart, notes }: Props): Reused | null | 'finding' | 'failed' => {
  const [found, setFound] = useState<Reused | null | 'finding' | 'failed'>('finding')
  const { school, weights } = openChart.settings
  const { written } = openChart.instrument
  const { text, overrides } = textHere(address, kept)
  useEffect(() => {
    if (text === null) return setFound(null)
    let wanted = true
    setFound('finding')
    const ask: ReuseAsk = { text, overrides, school, weights, written, notes: sounded(notes), range: RANGE }
    void reuseInWorker(ask).then(
      (reused) => wanted && setFound(reused),
      () => wanted && setFound('failed'),
    )
    return () => {
      wanted = false
    }
  }, [text, overrides, school, weights, written, notes])
  return found
}

/** Reuse: what the halves of a lick imply, every chord it serves, twelve keys, and every place of the chart it fits. */
export const ReuseHalf = (props: Props) => {
  const { row } = props
  const found = useReused(props)
  if (found === 'finding')
    return (
      <p className={styles.empty} role="status">
        Looking where it serves …
      </p>
    )
  if (found === 'failed')
    return (
      <p className={styles.empty} role="alert">
        This browser could not work it out.
      </p>
    )
  if (found === null)
    return (
      <p className={styles.empty}>
        It lies over no chord, or is too long for a lick: keep a piece of it (up to 256 notes) as a line first.
      </p>
    )
  const keep = (what: string, line: Line) => keepBeside(`${row.name}, ${what}`, line)
  const first = found.keys[0]?.line[0]?.pitch ?? 60
  return (
    <section className={styles.reuse} aria-label="Reuse">
      <p>{found.parts.map((p) => `Notes ${p.from + 1}–${p.to + 1} imply ${toGlyphs(p.implies)}`).join('; ')}.</p>
      <h2>It serves {howMany(found.serves.length, 'chord')} as it stands</h2>
      <ul className={styles.variations}>
        {found.serves.slice(0, MOST_SHOWN).map((s) => (
          <li key={s.chord} className={styles.serving}>
            <strong>{toGlyphs(s.chord)}</strong>
            <span>from the {toGlyphs(s.startDegree)}</span>
            <span>
              fade {s.fade}, lands {s.landing}
            </span>
            <span>{toGlyphs(s.why)}</span>
          </li>
        ))}
      </ul>
      <h2>Places in this chart</h2>
      {found.places.length === 0 && <p>It fits nowhere else in this chart.</p>}
      <ul className={styles.cards}>
        {found.places.map((p) => {
          const where = `bar ${p.bar}, ${toGlyphs(p.chord)}`
          return (
            <li key={`${p.bar} ${p.beat}`}>
              <Button onClick={() => keep(where, p.line)} title="Put it there, as a line beside this one">
                {where}: from the {toGlyphs(p.startDegree)}, fade {p.fade}
                {p.cut ? ', cut and landed' : ''}
              </Button>
            </li>
          )
        })}
      </ul>
      <div className={styles.cards}>
        <h2>Twelve keys, by fourths</h2>
        {KEY_ORDER_NAMES.map((order) => (
          <Button
            key={order}
            title="All twelve keys as one long line, with a chart of their chords"
            onClick={() => keepStudy(row.name, sounded(props.notes), order)}
          >
            Study by {order === 'random' ? 'chance' : order}
          </Button>
        ))}
      </div>
      <ul className={styles.keys}>
        {found.keys.map(({ semitones, line }) => {
          const name = toGlyphs(
            plainNote(pitchClass(first + semitones + props.openChart.instrument.written.semitones)).name,
          )
          return (
            <li key={semitones}>
              <button type="button" aria-label={`Keep it from ${name}`} onClick={() => keep(`from ${name}`, line)}>
                <strong>{name}</strong>
                <DraftBand notes={line} fades={[]} />
              </button>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
