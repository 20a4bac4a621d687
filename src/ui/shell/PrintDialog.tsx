import { useStore } from '@nanostores/react'
import { useMemo, useState } from 'react'
import { createPortal } from 'react-dom'
import {
  analyseLine,
  INSTRUMENTS,
  type Instrument,
  type InstrumentId,
  instrument,
  inTwelveKeys,
  jobFromNext,
  placeOf,
  type Reading,
  readOver,
  readOverlay,
  reverse,
  toGlyphs,
  transposeChord,
  transposeOverlay,
} from '../../core/index.ts'
import { ChartSheet } from '../figures/ChartSheet.tsx'
import { LineSheet } from '../figures/LineSheet.tsx'
import { tuningFrom } from '../figures/neck.ts'
import { Sheet } from '../figures/Sheet.tsx'
import { Button } from '../parts/Button.tsx'
import { Dialog } from '../parts/Dialog.tsx'
import { Select } from '../parts/Select.tsx'
import type { Address } from '../state/address/address.ts'
import { $listed } from '../state/desk/ranking.ts'
import type { Kept } from '../state/kept/kept.ts'
import { CLEFS, type Clef } from '../state/kept/settings.ts'
import { lineAskInView } from '../state/line/line-print.ts'
import { $printing, closePrinting } from '../state/page/dialogs.ts'
import { $planning } from '../state/route/planning.ts'
import { pickInView, routeModel, stepsInView } from '../state/route/route-model.ts'
import { sheetBars } from '../state/route/route-sheet.ts'
import type { OpenChart } from '../state/tune/open-chart.ts'
import styles from './PrintDialog.module.css'

const WHAT = {
  line: 'The line in view',
  chart: 'The chart with what is laid over it',
  twelve: 'This overlay in all twelve keys',
  list: 'The first twelve of the list',
  tray: 'The tray',
} as const
type What = keyof typeof WHAT
const MOST = 12

/** The concert overlays asked for, over the chord in view. */
const overlaysFor = (what: What, address: Address, openChart: OpenChart): readonly string[] => {
  if (what === 'tray') return address.tray
  const names = $listed.get().ranking?.names ?? []
  const back = reverse(openChart.instrument.written)
  return names.slice(0, MOST).flatMap((name) => {
    const read = readOverlay(name)
    return read.ok ? [transposeOverlay(read.value, back).name] : []
  })
}

/** What stands on the sheet, read in the pitch of the instrument it is for. */
const readingsFor = (what: What, address: Address, openChart: OpenChart, plays: Instrument): readonly Reading[] => {
  const { concert, settings } = openChart
  if (!concert) return []
  const { school, weights } = settings
  const { written } = plays
  if (what === 'twelve')
    return inTwelveKeys(concert.overlay, concert.chord, concert.next).map((k) => {
      const [chord, next] = [transposeChord(k.chord, written), k.next && transposeChord(k.next, written)]
      return readOver(
        transposeOverlay(k.overlay, written),
        placeOf(chord, next, school, jobFromNext(chord, next)),
        weights,
      )
    })
  const chord = transposeChord(concert.chord, written)
  const next = concert.next && transposeChord(concert.next, written)
  const spot = placeOf(chord, next, school, openChart.current?.job)
  return overlaysFor(what, address, openChart).flatMap((name) => {
    const read = readOverlay(name)
    return read.ok ? [readOver(transposeOverlay(read.value, written), spot, weights)] : []
  })
}

/** The chart as a page in the pitch of an instrument, with the chain in view on Route, else with the route in hand. */
const useChartSheet = (address: Address, kept: Kept, openChart: OpenChart, plays: Instrument) => {
  const planning = useStore($planning)
  return useMemo(() => {
    const model = address.view === 'route' ? routeModel(address, openChart, kept.route) : null
    const pick = pickInView(address, openChart)
    const route = pick === null ? null : (planning.routes[pick] ?? null)
    const steps = model && stepsInView(model, address, kept, openChart, route)
    return {
      bars: sheetBars(openChart, plays, steps, address.loop),
      route: model ? (route?.title ?? kept.route?.name ?? null) : openChart.inHand,
    }
  }, [planning, address, kept, openChart, plays])
}

const Making = ({
  address,
  kept,
  openChart,
}: {
  readonly address: Address
  readonly kept: Kept
  readonly openChart: OpenChart
}) => {
  const [chosen, setWhat] = useState<What | null>(null)
  const isLaid = address.view === 'route' || openChart.inHand !== null
  const lineAsk = useMemo(() => (address.view === 'line' ? lineAskInView(address, kept) : null), [address, kept])
  const usual = isLaid ? 'chart' : address.tray.length > 0 ? 'tray' : 'twelve'
  const what = chosen ?? (lineAsk ? 'line' : usual)
  const [plays, setPlays] = useState<InstrumentId>(openChart.settings.instrument ?? 'concert')
  const [clef, setClef] = useState<Clef>(openChart.settings.clef)
  const readings = useMemo(
    () => readingsFor(what, address, openChart, instrument(plays)),
    [what, address, openChart, plays],
  )
  const title =
    what === 'twelve'
      ? toGlyphs(readings[0]?.overlay.name ?? '')
      : `Over ${toGlyphs(readings[0]?.place.chord.symbol ?? '')}`
  const [tab, setTab] = useState(false)
  const written = instrument(plays)
  const { bars, route } = useChartSheet(address, kept, openChart, written)
  const strings = useMemo(
    () => (tab ? { tuning: tuningFrom(openChart.settings.tuning), up: written.written.semitones } : null),
    [tab, openChart.settings.tuning, written],
  )
  const badge = `${written.name}, ${clef} clef`
  const lineAnalysis = useMemo(
    () => (what === 'line' && lineAsk ? analyseLine({ ...lineAsk.ask, written: written.written }) : null),
    [what, lineAsk, written],
  )
  const overlays = <Sheet title={title} badge={badge} readings={readings} clef={clef} />
  const sheet =
    what === 'line' ? (
      lineAnalysis && (
        <LineSheet
          title={lineAsk?.name ?? ''}
          badge={badge}
          lineAnalysis={lineAnalysis}
          clef={clef}
          strings={strings}
        />
      )
    ) : what === 'chart' ? (
      <ChartSheet title={openChart.title} route={route} badge={badge} bars={bars} clef={clef} strings={strings} />
    ) : (
      overlays
    )
  const isEmpty = what === 'line' ? lineAnalysis === null : what === 'chart' ? bars.length === 0 : readings.length === 0
  return (
    <div className={styles.making}>
      <div className={styles.choices}>
        <Select
          label="What"
          value={what}
          options={(Object.keys(WHAT) as What[])
            .filter((w) => (w !== 'tray' || address.tray.length > 0) && (w !== 'line' || lineAsk !== null))
            .map((w) => ({ value: w, label: WHAT[w] }))}
          onPick={setWhat}
        />
        <Select
          label="For"
          value={plays}
          options={INSTRUMENTS.map((i) => ({ value: i.id, label: i.name }))}
          onPick={setPlays}
        />
        <Select label="Clef" value={clef} options={CLEFS.map((c) => ({ value: c, label: c }))} onPick={setClef} />
        {(what === 'chart' || what === 'line') && (
          <label className={styles.check}>
            <input type="checkbox" checked={tab} onChange={(e) => setTab(e.target.checked)} />
            Tablature
          </label>
        )}
        <Button tone="strong" disabled={isEmpty} onClick={() => window.print()}>
          Print this page
        </Button>
        {what === 'chart' && kept.route && !openChart.isSketch && (
          <a href={`/api/v1/routes/${kept.route.id}/export?as=musicxml&for=${plays}&clef=${clef}`} download>
            The route in hand as MusicXML
          </a>
        )}
        {isEmpty && <p role="alert">Nothing to print yet: lay something over the chord.</p>}
      </div>
      <div className={styles.preview} aria-hidden="true" inert>
        {sheet}
      </div>
      {createPortal(<div className="paper">{sheet}</div>, document.body)}
    </div>
  )
}

/** A page for the music stand, in anybody's transposition and clef. */
export const PrintDialog = ({
  address,
  kept,
  openChart,
}: {
  readonly address: Address
  readonly kept: Kept
  readonly openChart: OpenChart
}) => (
  <Dialog title="Print a sheet" open={useStore($printing)} onClose={closePrinting}>
    <Making address={address} kept={kept} openChart={openChart} />
  </Dialog>
)
