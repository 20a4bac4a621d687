import { toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { AT_START, go } from '../../state/address/address.ts'
import { removeChart } from '../../state/charts/library.ts'
import type { Kept } from '../../state/kept/kept.ts'
import type { ChartRow } from '../../state/kept/row-types.ts'
import { ask } from '../../state/tune/asking.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './NoChart.module.css'
import { NotOpen } from './NotOpen.tsx'

const EXAMPLES = ['B minor pentatonic over Eb7 to Abmaj7', 'Ab & Bb+ over Ab7', '| F#m7 | B7 | Emaj7 |'] as const

const openFirst = (kept: Kept): void => {
  const [first] = kept.charts
  if (first) go({ chart: first.id, sketch: null, ...AT_START })
}

/** What can be done with a kept chart that does not read: its text is as it was. */
const Unread = ({ row }: { readonly row: ChartRow }) => (
  <div className={styles.tools}>
    <Button tone="strong" onClick={() => go({ view: 'charts' })}>
      Mend its text
    </Button>
    <a className={styles.link} href={`/api/v1/charts/${row.id}/export?as=text`} download>
      Save it as a file
    </a>
    <Button onClick={() => void removeChart(row)}>Remove it</Button>
  </div>
)

/** Nothing open: what to do next. Or a chart that is gone or does not read: what is wrong, and the way on. */
export const NoChart = ({ kept, openChart }: { readonly kept: Kept; readonly openChart: OpenChart }) => {
  if (kept.loading || openChart.working)
    return (
      <p className={styles.empty} role="status">
        Opening the chart …
      </p>
    )
  if (kept.failed !== null)
    return (
      <div className={styles.empty}>
        <NotOpen kept={kept} />
      </div>
    )
  const { chartError } = openChart
  if (chartError || kept.missing)
    return (
      <div className={styles.empty} role="alert">
        <h1>{chartError ? 'This chart does not read' : 'This chart is not here any more'}</h1>
        {chartError ? (
          <p>
            At sign {chartError.at + 1}: “{chartError.found}”. Expected {chartError.expected.map(toGlyphs).join(', ')}.
          </p>
        ) : (
          <p>It was removed, or the address is from elsewhere. Nothing else is lost.</p>
        )}
        {chartError && kept.chart && !openChart.isSketch && <Unread row={kept.chart} />}
        {kept.charts.length > 0 && <Button onClick={() => openFirst(kept)}>Open {kept.charts[0]?.title}</Button>}
      </div>
    )
  return (
    <div className={styles.empty}>
      <h1>Lay something over a chord</h1>
      <p>
        Crossfade shows how far out each note is, and how it comes home to the next chord. Ask above (key /), or begin
        with one of these:
      </p>
      <ul className={styles.examples}>
        {EXAMPLES.map((q) => (
          <li key={q}>
            <Button onClick={() => ask(q)}>{toGlyphs(q)}</Button>
          </li>
        ))}
      </ul>
      {kept.charts.length > 0 ? (
        <Button tone="strong" onClick={() => openFirst(kept)}>
          Open {kept.charts[0]?.title}
        </Button>
      ) : (
        <p className={styles.soft}>The ferry band’s charts come with the demo: npm run demo.</p>
      )}
    </div>
  )
}
