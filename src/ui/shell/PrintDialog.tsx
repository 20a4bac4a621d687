import { useStore } from '@nanostores/react'
import { useMemo, useState } from 'react'
import { createPortal } from 'react-dom'
import {
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
import { Sheet } from '../figures/Sheet.tsx'
import { Button } from '../parts/Button.tsx'
import { Dialog } from '../parts/Dialog.tsx'
import { Select } from '../parts/Select.tsx'
import type { Desk } from '../stores/desk.ts'
import { $printing, closePrinting } from '../stores/dialogs.ts'
import type { Place } from '../stores/place.ts'
import { $listed } from '../stores/ranking.ts'
import { CLEFS, type Clef } from '../stores/settings.ts'
import styles from './PrintDialog.module.css'

const WHAT = {
  twelve: 'This overlay in all twelve keys',
  list: 'The first twelve of the list',
  tray: 'The tray',
} as const
type What = keyof typeof WHAT
const MOST = 12

/** The concert overlays asked for, over the chord in view. */
const overlaysFor = (what: What, place: Place, desk: Desk): readonly string[] => {
  if (what === 'tray') return place.tray
  const names = $listed.get().ranking?.names ?? []
  const back = reverse(desk.instrument.written)
  return names.slice(0, MOST).flatMap((name) => {
    const read = readOverlay(name)
    return read.ok ? [transposeOverlay(read.value, back).name] : []
  })
}

/** What stands on the sheet, read in the pitch of the instrument it is for. */
const readingsFor = (what: What, place: Place, desk: Desk, plays: Instrument): readonly Reading[] => {
  const { concert, settings } = desk
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
  const spot = placeOf(chord, next, school, desk.current?.job)
  return overlaysFor(what, place, desk).flatMap((name) => {
    const read = readOverlay(name)
    return read.ok ? [readOver(transposeOverlay(read.value, written), spot, weights)] : []
  })
}

const Making = ({ place, desk }: { readonly place: Place; readonly desk: Desk }) => {
  const [what, setWhat] = useState<What>(place.tray.length > 0 ? 'tray' : 'twelve')
  const [plays, setPlays] = useState<InstrumentId>(desk.settings.instrument ?? 'concert')
  const [clef, setClef] = useState<Clef>(desk.settings.clef)
  const readings = useMemo(() => readingsFor(what, place, desk, instrument(plays)), [what, place, desk, plays])
  const title =
    what === 'twelve'
      ? toGlyphs(readings[0]?.overlay.name ?? '')
      : `Over ${toGlyphs(readings[0]?.place.chord.symbol ?? '')}`
  const sheet = (
    <Sheet title={title} badge={`${instrument(plays).badge}, ${clef} clef`} readings={readings} clef={clef} />
  )
  return (
    <div className={styles.making}>
      <div className={styles.choices}>
        <Select
          label="What"
          value={what}
          options={(Object.keys(WHAT) as What[])
            .filter((w) => w !== 'tray' || place.tray.length > 0)
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
        <Button tone="strong" disabled={readings.length === 0} onClick={() => window.print()}>
          Print this page
        </Button>
        {readings.length === 0 && <p role="alert">Nothing to print yet: lay something over the chord.</p>}
      </div>
      <div className={styles.preview} aria-hidden="true" inert>
        {sheet}
      </div>
      {createPortal(<div className="paper">{sheet}</div>, document.body)}
    </div>
  )
}

/** A page for the music stand, in anybody's transposition and clef. */
export const PrintDialog = ({ place, desk }: { readonly place: Place; readonly desk: Desk }) => (
  <Dialog title="Print a sheet" open={useStore($printing)} onClose={closePrinting}>
    <Making place={place} desk={desk} />
  </Dialog>
)
