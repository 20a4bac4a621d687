/**
 * What a route costs, lower is better. Every term of every step is a whole number, so that a route's terms add up and
 * two routes can be compared without rounding. Source: theory page, section 8.
 */
export const ROUTE_COSTS = {
  /** For each semitone that each note moves on average: 10 for a set that slides by a half step. */
  motion: 10,
  /** For each note that moves, where as few as possible shall move. */
  movingNote: 10,
  /** A colour device right after itself. */
  repeat: 12,
  /** Where no arc is given: each note that rubs over a dominant on its way home. */
  rub: 15,
} as const

/** From here on an overlay is a colour: what a listener hears as a device. */
export const COLOUR_FADE = 25

export interface Terms {
  readonly arcMiss: number
  readonly motion: number
  readonly landingMiss: number
  readonly repeats: number
  readonly rubs: number
}

/** How far a step is from the wish; nothing where nothing was wished. */
export const arcMiss = (fade: number, wished: number | null): number => (wished === null ? 0 : Math.abs(fade - wished))

/** What a step lacks in landing, weighted by how far out it is: half of it at a fade of 100. */
export const landingMiss = (fade: number, landing: number | null): number =>
  landing === null ? 0 : Math.round(((100 - landing) * fade) / 200)

export const totalOf = (t: Terms): number => t.arcMiss + t.motion + t.landingMiss + t.repeats + t.rubs

export const NO_TERMS: Terms = { arcMiss: 0, motion: 0, landingMiss: 0, repeats: 0, rubs: 0 }

export const addTerms = (a: Terms, b: Terms): Terms => ({
  arcMiss: a.arcMiss + b.arcMiss,
  motion: a.motion + b.motion,
  landingMiss: a.landingMiss + b.landingMiss,
  repeats: a.repeats + b.repeats,
  rubs: a.rubs + b.rubs,
})
