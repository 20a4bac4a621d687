import type { RefObject } from 'react'
import { checkChart, type Reharmonisation, reharmonisationsAt, toGlyphs } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import type { Editor } from './editor.ts'
import styles from './Harmony.module.css'

const FAST_S = 0.75

const tempoWords = (r: Reharmonisation, tempo: number): string | null =>
  r.shortest < FAST_S
    ? `At ${tempo} the shortest of them sounds for ${r.shortest.toFixed(1)} s: hardly time to hear it.`
    : null

const passesOf = (openChart: OpenChart, r: Reharmonisation): number => {
  const written = openChart.chart?.bars.find((b) => b.number === r.bar)?.written
  return openChart.chart?.bars.filter((b) => b.written === written).length ?? 1
}

const Lane = ({ name, chords, strong }: { name: string; chords: readonly string[]; strong: boolean }) => (
  <tr className={strong ? styles.lane : styles.laneNow}>
    <th scope="row">{name}</th>
    {chords.map((c, i) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: a bar may hold the same chord twice
      <td key={i}>{toGlyphs(c)}</td>
    ))}
  </tr>
)

/** What could stand at the chord in view: a second lane under the first, taken only when the player says so. */
export const Instead = ({
  openChart,
  editor,
}: {
  readonly openChart: OpenChart
  readonly editor: RefObject<Editor | null> | null
}) => {
  const { chart, current } = openChart
  if (!chart || !current) return <p>No chord is in view.</p>
  const found = reharmonisationsAt(chart, editor?.current?.text() ?? '', openChart.spots, current)
  const accept = (r: Reharmonisation) => {
    const text = editor?.current?.text()
    if (text === undefined || !chart) return
    const { chart: shown } = checkChart(text)
    const again = shown && reharmonisationsAt(shown, text, openChart.spots, current).find((a) => a.kind === r.kind)
    editor?.current?.changeAll(again?.edits ?? [])
  }
  return (
    <div className={styles.scroll}>
      <h2>
        Instead of {toGlyphs(current.spot.chord.symbol)}, bar {current.spot.bar}
      </h2>
      {found.length === 0 && <p>Nothing is proposed here. Go to a dominant that resolves, or to a long chord.</p>}
      <ul className={styles.proposals}>
        {found.map((r) => {
          const words = tempoWords(r, chart.tempo)
          const passes = passesOf(openChart, r)
          return (
            <li key={r.kind}>
              <h3>{r.kind}</h3>
              <table className={styles.lanes}>
                <tbody>
                  <Lane name="now" chords={r.now} strong={false} />
                  <Lane name="instead" chords={r.instead} strong />
                </tbody>
              </table>
              <p>{toGlyphs(r.why)}</p>
              {words && <p>{words}</p>}
              {passes > 1 && <p>The bar is played {passes} times: it changes in each pass.</p>}
              {editor && (
                <Button tone="strong" onClick={() => accept(r)}>
                  Take it
                </Button>
              )}
            </li>
          )
        })}
      </ul>
    </div>
  )
}
