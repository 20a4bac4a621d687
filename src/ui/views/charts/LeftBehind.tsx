import { useMemo } from 'react'
import {
  checkChart,
  readHarmony,
  readOverlay,
  toGlyphs,
  transposeHarmony,
  transposeOverlay,
} from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { movedIdeas, moveIdea } from '../../state/charts/moved.ts'
import type { Kept } from '../../state/kept/kept.ts'
import type { ChartRow, IdeaRow } from '../../state/kept/row-types.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './ChartsView.module.css'

const written = (idea: IdeaRow, { instrument }: OpenChart): string => {
  const [overlay, chord] = [readOverlay(idea.overlay), readHarmony(idea.chord)]
  const over = overlay.ok ? transposeOverlay(overlay.value, instrument.written).name : idea.overlay
  const under = chord.ok ? transposeHarmony(chord.value, instrument.written).symbol : idea.chord
  return toGlyphs(`${over} over ${under}`)
}

/** The kept ideas whose chord is not where it was, since the text changed; each can go along. */
export const LeftBehind = ({
  row,
  kept,
  openChart,
}: {
  readonly row: ChartRow
  readonly kept: Kept
  readonly openChart: OpenChart
}) => {
  const moved = useMemo(() => {
    const { chart, errors } = checkChart(row.text)
    return chart && errors.length === 0 ? movedIdeas(chart, row.id, kept.ideas) : []
  }, [row.text, row.id, kept.ideas])
  if (moved.length === 0) return null
  return (
    <section className={styles.moved} aria-label="Ideas left behind">
      <p>
        {moved.length === 1 ? 'One kept idea does' : `${moved.length} kept ideas do`} not find{' '}
        {moved.length === 1 ? 'its' : 'their'} chord where it was:
      </p>
      <ul>
        {moved.map(({ idea, to }) => (
          <li key={idea.id}>
            <span>
              {written(idea, openChart)}, bar {idea.bar}
            </span>
            {to && <Button onClick={() => moveIdea(idea, to)}>Move it to bar {to.bar}</Button>}
            <Button onClick={() => moveIdea(idea, null)}>Take it off the chart</Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
