import { type Span, type TakeSentence, toGlyphs } from '../../../../core/index.ts'
import type { TakeRead } from '../../../../workers/start.ts'
import { Button } from '../../../parts/Button.tsx'
import { go } from '../../../state/address/address.ts'
import type { TakeRow } from '../../../state/kept/row-types.ts'
import { listenBack } from '../../../state/sound/listening-back.ts'
import type { OpenChart } from '../../../state/tune/open-chart.ts'
import { useTakesRead } from '../../overlay/use-take.ts'
import styles from './Takes.module.css'

const MOST = 12

/** What one take did in some bars: how far out, how it came home, and where that is. */
const inBars = (
  { reading }: TakeRead,
  [first, last]: readonly [number, number],
): { readonly words: string; readonly span: Span } | null => {
  const notes = reading.audit.notes.filter((n) => n.bar >= first && n.bar <= last)
  const [a, b] = [notes[0], notes.at(-1)]
  if (!a || !b) return null
  const fade = Math.round(notes.reduce((sum, n) => sum + n.fade, 0) / notes.length)
  const told = reading.sentences.filter((s) => s.bars[0] <= last && s.bars[1] >= first && s.bars[1] - s.bars[0] < 8)
  const what = told.map((s) => s.about).join(', ')
  return { words: `fade ${fade}${what ? `; ${what}` : ''}`, span: { from: a.at, to: b.at + b.for } }
}

/** The same bars over all takes of a chart. */
export const Spot = ({
  sentence,
  row,
  takes,
  openChart,
}: {
  readonly sentence: TakeSentence
  readonly row: TakeRow
  readonly takes: readonly TakeRow[]
  readonly openChart: OpenChart
}) => {
  const same = takes
    .filter((t) => t.chartId === row.chartId && (row.chartId !== null || t.id === row.id))
    .slice(0, MOST)
  const reads = useTakesRead(same, openChart)
  const [first, last] = sentence.bars
  return (
    <section aria-label="This spot in all takes">
      <h3>{first === last ? `Bar ${first}` : `Bars ${first}–${last}`} in all takes</h3>
      <ul className={styles.spot}>
        {same.map((t, i) => {
          const read = reads[i]
          const there = read && inBars(read, sentence.bars)
          return (
            <li key={t.id} aria-current={t.id === row.id ? 'true' : undefined}>
              <b>{toGlyphs(t.name)}</b>
              <span>{read ? (there?.words ?? 'nothing was played there') : 'Reading it …'}</span>
              {there && <Button onClick={() => void listenBack(t, there.span)}>Listen</Button>}
              {t.id !== row.id && <Button onClick={() => go({ otherTake: t.id })}>Beside this one</Button>}
            </li>
          )
        })}
      </ul>
    </section>
  )
}
