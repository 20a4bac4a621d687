import {
  compareSets,
  furtherOut,
  listed,
  notesIn,
  type PcSet,
  type Reading,
  readOver,
  readOverlay,
  toGlyphs,
  transposeOverlay,
} from '../../../core/index.ts'
import { CompareBand } from '../../figures/CompareBand.tsx'
import { Button } from '../../parts/Button.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { takeFromTray } from '../../state/desk/tray.ts'
import { copyTable } from '../../state/page/copying.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import panels from './panels.module.css'

const BANDS_HIGH = 292

interface Laid {
  readonly concert: string
  readonly reading: Reading
}

const trayOf = (address: Address, openChart: OpenChart): readonly Laid[] => {
  const spot = openChart.current?.reading?.place
  if (!spot) return []
  return address.tray.flatMap((concert) => {
    const read = readOverlay(concert)
    if (!read.ok) return []
    const overlay = transposeOverlay(read.value, openChart.instrument.written)
    return { concert, reading: readOver(overlay, spot, openChart.settings.weights) }
  })
}

const names = (reading: Reading, set: PcSet): string => listed(notesIn(reading, set).map((n) => toGlyphs(n.heard.name)))

const textOf = (laid: readonly Laid[]) => ({
  title: `Over ${laid[0]?.reading.place.chord.symbol ?? ''}`,
  heads: ['Overlay', 'Fade', 'Lands', 'Worst', 'Notes'],
  rows: laid.map(({ reading: r }) => [
    r.overlay.name,
    String(r.fade),
    String(r.landing ?? '–'),
    String(r.worst.fade),
    r.notes.map((n) => `${n.heard.name} ${n.degree}`).join(', '),
  ]),
})

/** Up to four overlays on one scale: what they share is underlined, what one alone has is framed. */
export const ComparePanel = ({ address, openChart }: { readonly address: Address; readonly openChart: OpenChart }) => {
  const laid = trayOf(address, openChart)
  const first = laid[0]
  if (!first)
    return (
      <section className={panels.panel} aria-label="Compare">
        <p>The tray is empty. Press T on an overlay to put it here, up to four, and compare them on one scale.</p>
      </section>
    )
  const { shared, own } = compareSets(laid.map((l) => l.reading.overlay.set))
  const common = names(first.reading, shared)
  const byFade = [...laid].sort((a, b) => b.reading.fade - a.reading.fade)
  const [furthest, nearest] = [byFade[0], byFade.at(-1)]
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and must be reached by keyboard
    <section className={panels.panel} aria-label="Compare" tabIndex={0}>
      <div className={panels.bands}>
        {laid.map(({ concert, reading }, i) => (
          <div key={concert} className={panels.band}>
            <button type="button" className={panels.bandName} onClick={() => go({ over: concert })}>
              <strong>{toGlyphs(reading.overlay.name)}</strong>
              <span>
                fade {reading.fade}, worst {reading.worst.fade}
                <br />
                lands {reading.landing ?? '–'}
              </span>
            </button>
            <CompareBand
              reading={reading}
              shared={laid.length > 1 ? shared : (0 as PcSet)}
              own={laid.length > 1 ? (own[i] ?? (0 as PcSet)) : (0 as PcSet)}
              height={Math.min(110, BANDS_HIGH / laid.length)}
            />
            <Button
              tone="quiet"
              aria-label={`Take ${toGlyphs(reading.overlay.name)} out of the tray`}
              onClick={() => takeFromTray(concert)}
            >
              ×
            </Button>
          </div>
        ))}
      </div>
      {furthest && nearest && furthest !== nearest && (
        <p className={panels.sum}>{toGlyphs(furtherOut(furthest.reading, nearest.reading))}</p>
      )}
      {laid.length > 1 && (
        <p className={panels.sum}>
          {common ? `All hold ${common} (underlined).` : 'No note is in all of them.'}{' '}
          {laid
            .map(({ reading }, i) => ({ reading, alone: names(reading, own[i] ?? (0 as PcSet)) }))
            .filter(({ alone }) => alone)
            .map(({ reading, alone }) => `Only ${toGlyphs(reading.overlay.name)} has ${alone}.`)
            .join(' ')}
        </p>
      )}
      <Button onClick={() => void copyTable(textOf(laid))}>Copy as text</Button>
    </section>
  )
}
