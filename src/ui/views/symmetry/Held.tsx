import {
  type Contents,
  type Overlay,
  type Reading,
  readOver,
  reverse,
  type Place as Spotted,
  toGlyphs,
  transposeOverlay,
  type Weights,
} from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { go } from '../../state/address/address.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import styles from './SymmetryView.module.css'

export const concertName = (overlay: Overlay, openChart: OpenChart): string =>
  transposeOverlay(overlay, reverse(openChart.instrument.written)).name

/** To the Desk with it, over the chord in view. */
export const sendToDesk = (overlay: Overlay, openChart: OpenChart): void =>
  go({ view: 'desk', over: concertName(overlay, openChart) })

const Chip = ({
  overlay,
  openChart,
  words,
}: {
  readonly overlay: Overlay
  readonly openChart: OpenChart
  readonly words?: string
}) => <Button onClick={() => sendToDesk(overlay, openChart)}>{toGlyphs(words ?? overlay.name)}</Button>

export interface HeldOn {
  readonly root: string
  readonly rows: readonly Reading[]
}

const byFade = (a: Reading, b: Reading): number => a.fade - b.fade || (b.landing ?? 0) - (a.landing ?? 0)

/** The triads and sevenths a scale holds, by root; what lies furthest in over the chord stands first. */
export const heldByRoot = ({ triads, sevenths }: Contents, spot: Spotted, weights: Weights): readonly HeldOn[] => {
  const roots = new Map<number, Reading[]>()
  for (const o of [...triads, ...sevenths])
    roots.set(o.root.pc, [...(roots.get(o.root.pc) ?? []), readOver(o, spot, weights)])
  return [...roots.values()]
    .map((all): HeldOn => ({ root: all[0]?.overlay.root.name ?? '', rows: [...all].sort(byFade) }))
    .sort((a, b) => (a.rows[0] && b.rows[0] ? byFade(a.rows[0], b.rows[0]) : 0))
}

export const shortName = ({ name }: { readonly name: string }): string => name.replace(' arpeggio', '')

/** What the scale holds, by root, with fade and degrees over the chord in view; each goes to the Desk. */
export const Held = ({
  contents,
  held,
  spot,
  openChart,
}: {
  readonly contents: Contents
  readonly held: readonly HeldOn[]
  readonly spot: Spotted
  readonly openChart: OpenChart
}) => (
  <>
    <table className={styles.table}>
      <caption>
        {contents.triads.length} triads and {contents.sevenths.length} sevenths over {toGlyphs(spot.chord.symbol)}, what
        serves first
      </caption>
      <thead>
        <tr>
          <th scope="col">Root</th>
          <th scope="col">Holds</th>
          <th scope="col">Degrees</th>
          <th scope="col">Fade</th>
          <th scope="col">Lands</th>
        </tr>
      </thead>
      {held.map(({ root, rows }) => (
        <tbody key={root}>
          {rows.map((r, i) => (
            <tr key={r.overlay.name}>
              {i === 0 && (
                <th scope="rowgroup" rowSpan={rows.length}>
                  {toGlyphs(root)}
                </th>
              )}
              <td>
                <button type="button" onClick={() => sendToDesk(r.overlay, openChart)}>
                  {toGlyphs(shortName(r.overlay))}
                </button>
              </td>
              <td>{toGlyphs(r.notes.map((n) => n.degree).join(' '))}</td>
              <td className={styles.number}>{r.fade}</td>
              <td className={styles.number}>{r.landing ?? '–'}</td>
            </tr>
          ))}
        </tbody>
      ))}
    </table>
    <section>
      <h2>
        {contents.polychords.length === 1 ? 'One polychord' : `${contents.polychords.length} polychords`}, upper | lower
      </h2>
      <div className={styles.chips}>
        {contents.polychords.map(({ upper, lower }) => (
          <Chip
            key={`${upper.name}|${lower.name}`}
            overlay={upper}
            openChart={openChart}
            words={`${upper.name}|${shortName(lower)}`}
          />
        ))}
      </div>
    </section>
  </>
)
