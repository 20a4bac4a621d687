import { parentsOf, type Reading, readOver, type Place as Spotted, toGlyphs, triadOf } from '../../../core/index.ts'
import { Button } from '../../parts/Button.tsx'
import { hearOverlay, keep } from '../../stores/actions.ts'
import type { Desk } from '../../stores/desk.ts'
import { openPrinting } from '../../stores/dialogs.ts'
import { cellOf, goToCell, pairsInCell } from '../../stores/pair-list.ts'
import { go, PAIR_PARTS, type PairPart, type Place } from '../../stores/place.ts'
import { layWritten } from '../../stores/ranking.ts'
import { turnTray } from '../../stores/tray.ts'
import { FigureTabs } from '../overlay/FigureTabs.tsx'
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
const Facts = ({ reading, desk }: { readonly reading: Reading; readonly desk: Desk }) => {
  const { groups } = reading.overlay
  if (!groups) return null
  const shared = reading.notes.filter((n) => triadOf(reading, n) === 'both')
  const parents = parentsOf(reading.overlay)
  return (
    <div className={styles.facts}>
      {groups.map((g, i) => (
        <p key={g.name}>
          <strong>{toGlyphs(g.name)}</strong> {i === 0 ? 'solid' : 'hollow'}:{' '}
          {readOver(g, reading.place, desk.settings.weights)
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
          <Button key={scale.name} onClick={() => layWritten(scale.name, desk)}>
            {toGlyphs(scale.name)}
            {omitted.length > 0 ? toGlyphs(` without ${omitted.join(' ')}`) : ''}
          </Button>
        ))}
      </p>
    </div>
  )
}

const MapPart = ({
  place,
  desk,
  reading,
}: {
  readonly place: Place
  readonly desk: Desk
  readonly reading: Reading
}) => {
  const { weights } = desk.settings
  const spot = reading.place
  const at = cellOf(reading.overlay)
  const cell = pairsInCell(desk)
  return (
    <>
      <PairMap spot={spot} weights={weights} at={at} distance={place.distance} onGo={(to) => goToCell(to, desk)} />
      <div className={styles.middle}>
        <h2>On twelve roots</h2>
        {cell ? (
          <PairList
            cell={cell}
            spot={spot}
            weights={weights}
            laid={reading.overlay.set}
            onLay={(n) => layWritten(n, desk)}
          />
        ) : (
          <p className={styles.soft}>Choose a cell of the map.</p>
        )}
      </div>
      <section className={styles.picture} aria-label="Overlay">
        <FigureTabs now={place.figure} inTray={0} few />
        <TurnTaking figure={place.figure} reading={reading} desk={desk} brief />
        <Facts reading={reading} desk={desk} />
      </section>
    </>
  )
}

const Part = ({ place, desk, reading }: { readonly place: Place; readonly desk: Desk; readonly reading: Reading }) => {
  const spot: Spotted = reading.place
  const { groups } = reading.overlay
  if (place.part === 'derive') return <Derive place={place} desk={desk} spot={spot} />
  if (place.part === 'map') return <MapPart place={place} desk={desk} reading={reading} />
  if (groups) return <PlayPair reading={reading} groups={groups} desk={desk} />
  return (
    <p className={styles.soft}>
      No pair is laid over this chord yet. Choose one in the map, or derive one from a scale.
    </p>
  )
}

/** Pairs of triads over the chord in view: the map, the derivation, and how to play them. */
const PairsView = ({ place, desk }: ViewProps) => {
  const reading = desk.current?.reading
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
            <Button key={p} pressed={p === place.part} onClick={() => go({ part: p })}>
              {PART_NAMES[p]}
            </Button>
          ))}
        </nav>
        {isPair && (
          <span className={styles.line}>
            <Button title="Enter" onClick={hearOverlay}>
              Hear
            </Button>
            <Button title="t" onClick={turnTray}>
              Tray
            </Button>
            <Button onClick={openPrinting}>Print</Button>
            <Button tone="strong" title="k" onClick={keep}>
              Keep
            </Button>
          </span>
        )}
      </header>
      <div className={place.part === 'map' ? styles.mapPart : styles.part}>
        <Part place={place} desk={desk} reading={reading} />
      </div>
    </div>
  )
}

export default PairsView
