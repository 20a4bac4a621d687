/** Sizes of the route's band, px from its top. */
export interface BandSizes {
  readonly symbols: number
  readonly top: number
  readonly rise: number
  readonly home: number
  readonly number: number
  readonly name: number
  /** Where the small picture of each overlay stands; null where there is no room for it. */
  readonly shape: number | null
  readonly seam: number
  readonly height: number
  /** Whether names and seams are shown; else only how far out. */
  readonly named: boolean
}
const SYMBOLS = 26
const NUMBERS = 20
export const SEAM_HEIGHT = 24
const MARGIN = 20

const sized = (top: number, rise: number, shapes: number, named: boolean): BandSizes => {
  const home = top + rise
  const number = home + NUMBERS
  const name = number + 26
  const seam = shapes > 0 ? name + 24 + shapes - 6 : name + 26
  return {
    ...{ symbols: SYMBOLS, top, rise, home, number, name, seam, named },
    shape: shapes > 0 ? name + 24 : null,
    height: named ? seam + SEAM_HEIGHT + 6 : number + 8,
  }
}
/** Near: names, small pictures, seams; the whole form: only how far out. Either for a tall and a short window. */
export const BAND_SIZES = {
  near: { tall: sized(40, 94, 50, true), short: sized(38, 52, 0, true) },
  whole: { tall: sized(40, 94, 0, false), short: sized(38, 60, 0, false) },
} as const

const PER_BEAT = 52
const MOST_PER_BEAT = 96
/** What a name and its shape need. */
const LEAST_WIDTH = 92

export interface BandBox {
  readonly x: number
  readonly w: number
}

export interface BandLayout {
  readonly width: number
  readonly boxes: readonly BandBox[]
  /** Whether all of it stands in the width that was given. */
  readonly fits: boolean
}

/**
 * One box for each step, as wide as its beats; where some are short all are wider. With `whole` the form stands in `room`
 * px, however narrow its steps; where names fit there they are near already.
 */
export const layoutBand = (beats: readonly number[], room: number | null = null, whole = false): BandLayout => {
  const needed = Math.min(MOST_PER_BEAT, Math.max(PER_BEAT, ...beats.map((b) => LEAST_WIDTH / b)))
  const all = beats.reduce((sum, b) => sum + b, 0)
  const fitting = room === null || all === 0 ? 0 : (room - 2 * MARGIN) / all
  const fits = fitting >= needed
  const perBeat = fits ? Math.min(fitting, MOST_PER_BEAT) : whole && fitting > 0 ? fitting : needed
  let x: number = MARGIN
  const boxes = beats.map((b) => {
    const box = { x, w: b * perBeat }
    x += box.w
    return box
  })
  return { width: x + MARGIN, boxes, fits }
}

/** Height of a fade in the band. */
export const fadeY = ({ home, rise }: BandSizes, fade: number): number => home - (fade / 100) * rise
/** The fade at a height: what a drag means, in steps of one. */
export const fadeAt = ({ home, rise }: BandSizes, y: number): number =>
  Math.max(0, Math.min(100, Math.round(((home - y) / rise) * 100)))

/** A name in a strong line and a soft one: `C# minor` and `pentatonic`; short names stand alone. */
export const nameLines = (name: string): readonly [string, string] => {
  const words = name.split(' ')
  if (name.length <= 9 || words.length < 2) return [name, '']
  const joint = words.indexOf('&')
  const strong = joint > 0 ? joint : words.length > 2 && (words[0] ?? '').length <= 3 ? 2 : 1
  return [words.slice(0, strong).join(' '), words.slice(strong).join(' ')]
}
