import { parentsOf, type Reading, readOver, type Place as Spotted, toGlyphs, triadOf } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { type Address, go } from '../../state/address/address.ts'
import { PAIR_PARTS, type PairPart } from '../../state/address/parts/pairs.ts'
import { keep } from '../../state/desk/keeping.ts'
import { toggleTray } from '../../state/desk/tray.ts'
import { openPrinting } from '../../state/page/dialogs.ts'
import { cellOf, goToCell, pairsInCell } from '../../state/pairs/pair-list.ts'
import { hearOverlay } from '../../state/sound/overlay-hearing.ts'
import { layWritten } from '../../state/tune/laying.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'
import { FigureTabs } from '../overlay/FigureTabs.tsx'
import { LayButtons } from '../overlay/LayButtons.tsx'
import { PractiseButton } from '../overlay/PractiseButton.tsx'
import { TurnTaking } from '../overlay/TurnTaking.tsx'
import type { ViewProps } from '../view.ts'
import { Derive } from './Derive.tsx'
import { PairList } from './PairList.tsx'
import { PairMap } from './PairMap.tsx'
import styles from './PairsView.module.css'
import { PlayPair } from './PlayPair.tsx'

const PART_NAMES: Readonly<Record<PairPart, string>> = { map: 'Map', derive: 'Derive', play: 'Play' }
const PARENTS_SHOWN = 2

/** Each triad's degrees apart, whether they share a note, and where the pair can come from. */
const Facts = ({ reading, openChart }: { readonly reading: Reading; readonly openChart: OpenChart }) => {
  const { groups } = reading.overlay
  if (!groups) return null
  const shared = reading.notes.filter((n) => triadOf(reading, n) === 'both')
  const parents = parentsOf(reading.overlay)
  return (
    <div className={styles.facts}>
      {groups.map((g, i) => (
        <p key={g.name}>
          <strong>{toGlyphs(g.name)}</strong> {i === 0 ? 'solid' : 'hollow'}:{' '}
          {readOver(g, reading.place, openChart.settings.weights)
            .notes.map((n) => toGlyphs(`${n.note.name} ${n.degree}`))
            .join(', ')}
        </p>
      ))}
      <p className={styles.line}>
        <span>
          {shared.length === 0
            ? 'They share no note. '
            : `They share ${shared.map((n) => toGlyphs(n.note.name)).join(' and ')}. `}
          {parents.length > 0 ? 'Out of' : 'Out of no scale of the catalogue.'}
        </span>
        {parents.slice(0, PARENTS_SHOWN).map(({ scale, omitted }) => (
          <Button key={scale.name} onClick={() => layWritten(scale.name, openChart)}>
            {toGlyphs(scale.name)}
            {omitted.length > 0 ? toGlyphs(` without ${omitted.join(' ')}`) : ''}
          </Button>
        ))}
      </p>
    </div>
  )
}

const MapPart = ({
  address,
  openChart,
  reading,
}: {
  readonly address: Address
  readonly openChart: OpenChart
  readonly reading: Reading
}) => {
  const { weights } = openChart.settings
  const spot = reading.place
  const at = cellOf(reading.overlay)
  const cell = pairsInCell(openChart)
  return (
    <>
      <PairMap
        spot={spot}
        weights={weights}
        at={at}
        address={address}
        onGo={(to, shared) => goToCell(to, shared, openChart)}
      />
      <div className={styles.middle}>
        <h2>On twelve roots</h2>
        {cell ? (
          <PairList
            cell={cell}
            spot={spot}
            weights={weights}
            laid={reading.overlay.set}
            onLay={(n) => layWritten(n, openChart)}
          />
        ) : (
          <p className={styles.soft}>Choose a cell of the map.</p>
        )}
      </div>
      <section className={styles.picture} aria-label="Overlay">
        <FigureTabs now={address.figure} inTray={0} few />
        <TurnTaking figure={address.figure} reading={reading} openChart={openChart} brief />
        <Facts reading={reading} openChart={openChart} />
      </section>
    </>
  )
}

const Part = ({
  address,
  openChart,
  reading,
}: {
  readonly address: Address
  readonly openChart: OpenChart
  readonly reading: Reading
}) => {
  const spot: Spotted = reading.place
  const { groups } = reading.overlay
  if (address.part === 'derive') return <Derive address={address} openChart={openChart} spot={spot} />
  if (address.part === 'map') return <MapPart address={address} openChart={openChart} reading={reading} />
  if (groups) return <PlayPair address={address} openChart={openChart} />
  return (
    <p className={styles.soft}>
      No pair is laid over this chord yet. Choose one in the map, or derive one from a scale.
    </p>
  )
}

/** Pairs of triads over the chord in view: the map, the derivation, and how to play them. */
const PairsView = ({ address, openChart }: ViewProps) => {
  const reading = openChart.current?.reading
  if (!reading)
    return (
      <div className={styles.empty}>
        <h1>Pairs</h1>
        <p>Two triads, played in turn over one chord. Go to a chord on the strip, or ask: pairs over D♭7.</p>
        <Button onClick={() => go({ view: 'desk' })}>To the Desk</Button>
      </div>
    )
  const isPair = reading.overlay.groups !== null
  return (
    <div className={styles.view}>
      <header className={styles.head}>
        <h1>
          {isPair ? toGlyphs(reading.overlay.name) : 'Pairs'}{' '}
          <span className={styles.over}>over {toGlyphs(reading.place.chord.symbol)}</span>
        </h1>
        {isPair && (
          <span className={styles.figures}>
            fade <strong>{reading.fade}</strong> worst {reading.worst.fade} · lands{' '}
            <strong>{reading.landing ?? '–'}</strong>
          </span>
        )}
        <nav className={styles.parts} aria-label="Parts">
          {PAIR_PARTS.map((p) => (
            <Button key={p} pressed={p === address.part} onClick={() => go({ part: p })}>
              {PART_NAMES[p]}
            </Button>
          ))}
        </nav>
        {isPair && (
          <span className={styles.line}>
            <Button title="Enter" onClick={hearOverlay}>
              Hear
            </Button>
            <Button title="t" onClick={toggleTray}>
              Tray
            </Button>
            <Button onClick={openPrinting}>Print</Button>
            <Button title="k" onClick={keep}>
              Keep
            </Button>
            <PractiseButton />
            <LayButtons openChart={openChart} />
          </span>
        )}
      </header>
      <div className={address.part === 'map' ? styles.mapPart : styles.part}>
        <Part address={address} openChart={openChart} reading={reading} />
      </div>
    </div>
  )
}

export default PairsView
