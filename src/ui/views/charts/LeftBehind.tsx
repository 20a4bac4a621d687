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
import type { Desk } from '../../stores/desk.ts'
import type { Kept } from '../../stores/kept.ts'
import { movedIdeas, moveIdea } from '../../stores/moved.ts'
import type { ChartRow, IdeaRow } from '../../stores/rows.ts'
import styles from './ChartsView.module.css'

const written = (idea: IdeaRow, { instrument }: Desk): string => {
  const [overlay, chord] = [readOverlay(idea.overlay), readHarmony(idea.chord)]
  const over = overlay.ok ? transposeOverlay(overlay.value, instrument.written).name : idea.overlay
  const under = chord.ok ? transposeHarmony(chord.value, instrument.written).symbol : idea.chord
  return toGlyphs(`${over} over ${under}`)
}

/** The kept ideas whose chord is not where it was, since the text changed; each can go along. */
export const LeftBehind = ({
  row,
  kept,
  desk,
}: {
  readonly row: ChartRow
  readonly kept: Kept
  readonly desk: Desk
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
              {written(idea, desk)}, bar {idea.bar}
            </span>
            {to && <Button onClick={() => void moveIdea(idea, to)}>Move it to bar {to.bar}</Button>}
            <Button onClick={() => void moveIdea(idea, null)}>Take it off the chart</Button>
          </li>
        ))}
      </ul>
    </section>
  )
}
