/** Sizes of the route's band, px from its top. */
export const BAND = {
  symbols: 26,
  top: 40,
  rise: 94,
  numbers: 20,
  names: 34,
  shapes: 50,
  seams: 24,
  margin: 20,
  get home() {
    return this.top + this.rise
  },
  get number() {
    return this.home + this.numbers
  },
  get name() {
    return this.number + this.names - 8
  },
  get shape() {
    return this.name + 24
  },
  get seam() {
    return this.shape + this.shapes - 6
  },
  get height() {
    return this.seam + this.seams + 6
  },
} as const

const PER_BEAT = 52
const MOST_PER_BEAT = 96
/** What a name and its shape need. */
const LEAST_WIDTH = 92

export interface BandBox {
  readonly x: number
  readonly w: number
}

/** One box for each step, as wide as its beats; where some are short all are wider. */
export const layoutBand = (
  beats: readonly number[],
): { readonly width: number; readonly boxes: readonly BandBox[] } => {
  const perBeat = Math.min(MOST_PER_BEAT, Math.max(PER_BEAT, ...beats.map((b) => LEAST_WIDTH / b)))
  let x: number = BAND.margin
  const boxes = beats.map((b) => {
    const box = { x, w: b * perBeat }
    x += box.w
    return box
  })
  return { width: x + BAND.margin, boxes }
}

/** Height of a fade in the band. */
export const fadeY = (fade: number): number => BAND.home - (fade / 100) * BAND.rise
/** The fade at a height: what a drag means, in steps of one. */
export const fadeAt = (y: number): number => Math.max(0, Math.min(100, Math.round(((BAND.home - y) / BAND.rise) * 100)))

/** A name in a strong line and a soft one: `C# minor` and `pentatonic`; short names stand alone. */
export const nameLines = (name: string): readonly [string, string] => {
  const words = name.split(' ')
  if (name.length <= 9 || words.length < 2) return [name, '']
  const joint = words.indexOf('&')
  const strong = joint > 0 ? joint : words.length > 2 && (words[0] ?? '').length <= 3 ? 2 : 1
  return [words.slice(0, strong).join(' '), words.slice(strong).join(' ')]
}
