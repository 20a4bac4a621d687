/** How far out each kind of note counts, 0..100. The player's own to move. Source: theory page, section 5. */
export interface Weights {
  readonly chord: number
  readonly ninth: number
  readonly extension: number
  readonly sharpEleven: number
  /** Added to an extension the home scale does not hold. */
  readonly awayFromHome: number
  readonly altered: { readonly '#11': number; readonly b13: number; readonly '#9': number; readonly b9: number }
  /** Taken off an altered note that the home scale or the symbol holds. */
  readonly alteredHeld: number
  readonly suspensionHome: number
  readonly suspensionAway: number
  readonly outside: number
  readonly rubRoot: number
  readonly denied: number
  readonly rubGuide: number
  /** Percent of the mean in an overlay's fade; the rest is its worst note. */
  readonly meanShare: number
}

export const DEFAULT_WEIGHTS: Weights = {
  chord: 0,
  ninth: 15,
  extension: 20,
  sharpEleven: 25,
  awayFromHome: 20,
  altered: { '#11': 35, b13: 40, '#9': 45, b9: 50 },
  alteredHeld: 20,
  suspensionHome: 30,
  suspensionAway: 50,
  outside: 70,
  rubRoot: 85,
  denied: 85,
  rubGuide: 95,
  meanShare: 70,
}

/** A blue note counts no more than this. */
export const BLUE_MOST = 30
/** The natural 7 over a minor chord, where the home scale does not hold it. */
export const MINOR_SEVEN = { 'over a tonic': 45, elsewhere: 60 } as const
/** The next chord's root that sounds already is home; its half step down into the 7 comes after. */
export const ROOT_HELD = { held: 0.45, 'half step down': 0.3 } as const

/** How well each way out lands, 0..1. Source: theory page, section 5. */
export const EXIT_STRENGTHS = {
  guide: { held: 0.45, half: 1, whole: 0.4 },
  chord: { held: 0.3, half: 0.8, whole: 0.2 },
  extension: { held: 0, half: 0.1, whole: 0 },
} as const
