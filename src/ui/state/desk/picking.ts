import { atom } from 'nanostores'
import {
  has,
  heardOver,
  namesOf,
  type Overlay,
  type PcSet,
  pitchClass,
  readOverlay,
  reverse,
  setOf,
  transposeOverlay,
} from '../../../core/index.ts'
import { choose } from '../address/address.ts'
import { say } from '../page/notices.ts'
import type { OpenChart } from '../tune/open-chart.ts'

/** Whether pressing a key, a fret or a line picks notes instead of only hearing them. */
export const $picking = atom<boolean>(false)
export const togglePicking = (): void => $picking.set(!$picking.get())

/** The notes as an overlay: under its best name, its root kept where it can be, else as the bare notes. */
const overlayOf = (set: PcSet, openChart: OpenChart): Overlay | null => {
  const reading = openChart.current?.reading
  if (!reading) return null
  const named = namesOf(set, reading.overlay)[0]
  if (named) return named
  const own = reading.overlay.notes.filter((n) => has(set, n.pc))
  const added = Array.from({ length: 12 }, (_, pc) => pitchClass(pc)).filter(
    (pc) => has(set, pc) && !has(setOf(own.map((n) => n.pc)), pc),
  )
  const names = [...own, ...added.map((pc) => heardOver(reading.place.chord, pc))].map((n) => n.name)
  const read = readOverlay(names.join(' '))
  return read.ok ? read.value : null
}

/** Takes a note into the overlay, or out of it. */
export const pick = (pc: number, openChart: OpenChart): void => {
  const overlay = openChart.current?.reading?.overlay
  if (!overlay) return
  const set = (overlay.set ^ (1 << pc)) as PcSet
  const picked = overlayOf(set, openChart)
  if (!picked) return say('An overlay has two notes at least.')
  choose('the notes picked', { over: transposeOverlay(picked, reverse(openChart.instrument.written)).name })
}
