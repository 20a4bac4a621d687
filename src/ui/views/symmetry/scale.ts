import {
  type Chord,
  dominantsBehind,
  has,
  holdsDiminished,
  homeOverlay,
  MATERIALS,
  type Note,
  nameOn,
  type Overlay,
  ownSymbol,
  pitchClass,
  placeOf,
  readChord,
  readOverlay,
  type Place as Spotted,
  type StoodFor,
  transposeOverlay,
} from '../../../core/index.ts'
import type { Address } from '../../state/address/address.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'

export const SYMMETRIC = MATERIALS.filter((m) => m.family === 'symmetric')

/** The scale under examination, written: as asked, else the overlay or home scale if symmetric, else half-whole on the root. */
export const scaleInView = (address: Address, openChart: OpenChart): Overlay => {
  const asked = address.scale === null ? null : readOverlay(address.scale)
  if (asked?.ok && asked.value.material) return transposeOverlay(asked.value, openChart.instrument.written)
  const reading = openChart.current?.reading
  if (reading?.overlay.material?.family === 'symmetric') return reading.overlay
  const home = reading && homeOverlay(reading.place.home.first)
  if (home?.material?.family === 'symmetric') return home
  const usual = readOverlay(`${reading?.place.chord.root.name ?? 'C'} half-whole`)
  if (!usual.ok) throw new Error('our own half-whole scale does not read')
  return usual.value
}

/** Over what it is read: the chord in view, else its own seventh chord, alone. */
export const spotFor = (scale: Overlay, openChart: OpenChart): Spotted => {
  const here = openChart.current?.reading?.place
  if (here) return here
  const own = readChord(ownSymbol(scale))
  if (!own.ok) throw new Error(`a scale's own chord does not read: ${scale.name}`)
  return placeOf(own.value, null, openChart.settings.school)
}

/** The diminished sevenths in a scale; first those whose dominants have that very scale, a half step below them. */
const diminishedOn = (scale: Overlay): Note | undefined => {
  const held = scale.notes.filter((n) => holdsDiminished(scale, n))
  return held.find((n) => has(scale.set, pitchClass(n.pc - 1))) ?? held[0]
}

/** The diminished chord to explain: the one in view, else the one in the scale. */
export const diminishedIn = (
  scale: Overlay,
  openChart: OpenChart,
): { chord: Chord; stands: readonly StoodFor[] } | null => {
  const here = openChart.current?.reading?.place.chord
  const ofHere = here && dominantsBehind(here)
  if (here && ofHere) return { chord: here, stands: ofHere }
  const root = diminishedOn(scale)
  const own = root && readChord(`${root.name}dim7`)
  const stands = own?.ok ? dominantsBehind(own.value) : null
  return own?.ok && stands ? { chord: own.value, stands } : null
}

export const onRoot = (root: string, scale: Overlay): string =>
  scale.material ? nameOn(root, scale.material) : scale.name
