import { useStore } from '@nanostores/react'
import { Trash2 } from 'lucide-react'
import { memo, useMemo } from 'react'
import {
  placeOf,
  type Reading,
  readChord,
  readOver,
  readOverlay,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../../core/index.ts'
import { Multiple } from '../../figures/Multiple.tsx'
import { Button } from '../../parts/Button.tsx'
import { $ideasNext, type Kept, moreIdeas, removeIdea } from '../../state/kept/kept.ts'
import type { IdeaRow } from '../../state/kept/row-types.ts'
import { FIRST } from '../../state/page/first.ts'
import { layIdea } from '../../state/tune/asking.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './Ideas.module.css'

/** What an idea is read by; a desk is new at every key, this is not. */
type Written = Pick<OpenChart, 'instrument' | 'settings'>

/** A kept idea read in the player's written pitch, or null where it no longer reads. */
const readingOf = (idea: IdeaRow, { instrument, settings }: Written): Reading | null => {
  const overlay = readOverlay(idea.overlay)
  const chord = readChord(idea.chord)
  const next = idea.next === null ? null : readChord(idea.next)
  if (!overlay.ok || !chord.ok) return null
  const { written } = instrument
  const to = next?.ok ? transposeChord(next.value, written) : null
  const place = placeOf(transposeChord(chord.value, written), to, settings.school)
  return readOver(transposeOverlay(overlay.value, written), place, settings.weights)
}

interface IdeaProps extends Written {
  readonly idea: IdeaRow
  readonly here: boolean
}

const Idea = memo(({ idea, instrument, settings, here }: IdeaProps) => {
  const reading = useMemo(() => readingOf(idea, { instrument, settings }), [idea, instrument, settings])
  if (!reading) return null
  const { chord, next } = reading.place
  const where = here && idea.bar !== null ? ` in bar ${idea.bar}` : next ? ` to ${toGlyphs(next.symbol)}` : ''
  return (
    <li className={styles.idea}>
      <button type="button" className={styles.lay} onClick={() => layIdea(idea)}>
        <Multiple reading={reading} />
        <span className={styles.words}>
          <span className={styles.name}>{toGlyphs(reading.overlay.name)}</span>
          <span className={styles.over}>
            over {toGlyphs(chord.symbol)}
            {where}
          </span>
        </span>
        <span className={styles.number}>
          <span className={styles.unseen}>fade </span>
          {reading.fade}
        </span>
        <span className={styles.number}>
          <span className={styles.unseen}>lands </span>
          {reading.landing ?? '–'}
        </span>
      </button>
      <Button
        tone="quiet"
        aria-label={`Remove ${toGlyphs(reading.overlay.name)} over ${toGlyphs(chord.symbol)}`}
        onClick={() => void removeIdea(idea.id)}
      >
        <Trash2 size={18} aria-hidden="true" />
      </Button>
    </li>
  )
})

/** What was kept: this chart's ideas first, in the order of the chart, then the others. */
export const Ideas = ({
  kept,
  openChart,
  onOver,
}: {
  readonly kept: Kept
  readonly openChart: OpenChart
  /** To the list of what could be laid here, where there is no room for both. */
  readonly onOver: (() => void) | null
}) => {
  const more = typeof useStore($ideasNext, FIRST) === 'string'
  const chartId = openChart.isSketch ? null : (kept.chart?.id ?? null)
  const ofChart = kept.ideas.filter((i) => i.chartId !== null && i.chartId === chartId)
  const inOrder = [...ofChart].sort((a, b) => (a.bar ?? 0) - (b.bar ?? 0) || (a.beat ?? 0) - (b.beat ?? 0))
  const all = [...inOrder, ...kept.ideas.filter((i) => !ofChart.includes(i))]
  return (
    <section className={styles.column} aria-label="Kept">
      <header className={styles.head}>
        <h2>Kept ideas</h2>
        {all.length > 0 && (
          <span className={styles.heads} aria-hidden="true">
            <span>fade</span>
            <span>lands</span>
          </span>
        )}
        {onOver && (
          <Button className={styles.turn ?? ''} onClick={onOver}>
            Lay over
          </Button>
        )}
      </header>
      {all.length === 0 ? (
        <p className={styles.none}>
          Nothing kept yet. Try something over the chord and press Keep: it stays here as an idea, for any chart.
        </p>
      ) : (
        <ul aria-label="Ideas" className={styles.list}>
          {all.map((idea) => (
            <Idea
              key={idea.id}
              idea={idea}
              instrument={openChart.instrument}
              settings={openChart.settings}
              here={ofChart.includes(idea)}
            />
          ))}
        </ul>
      )}
      {more && all.length > 0 && (
        <Button tone="quiet" onClick={() => void moreIdeas()}>
          More ideas, of other charts
        </Button>
      )}
    </section>
  )
}
