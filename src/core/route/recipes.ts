import {
  chromaticNeighbours,
  descendingPairs,
  diminishedIntoNext,
  halfWholeOver,
  partnersPentatonic,
  risingPentatonics,
} from './cadence-recipes.ts'
import type { Ground, Recipe, RecipePlace } from './recipe.ts'
import { changesOfAnother, fourAndFour, sideSlips, thirdsApart } from './staying-recipes.ts'

/** Ready recipes by name. Source: theory page, section 8. */
export const RECIPES = {
  'minor pentatonics rising': {
    reason: 'One shape climbs by half steps while the roots fall by fifths: the ear follows the climb.',
    places: risingPentatonics,
  },
  "the partner's pentatonic, then down": {
    reason:
      'The major pentatonic of the tritone partner holds every altered tension, and all of it slides home a half step.',
    places: partnersPentatonic,
  },
  'diminished on the b9': {
    reason:
      'The diminished arpeggio on the b9 is the dominant without its root, and nearly every note has a half step to go.',
    places: diminishedIntoNext,
  },
  'half-whole over ii and V': {
    reason: "The dominant's colour comes early, so that the two chords are one pull.",
    places: halfWholeOver,
  },
  'chromatic neighbour before': {
    reason: 'The next chord, heard a half step above itself for a moment, falls into place.',
    places: chromaticNeighbours,
  },
  'descending ii-Vs': {
    reason: 'The same cadence a half step higher comes first, and everything in it falls by a half step.',
    places: descendingPairs,
  },
  'triads a third apart': {
    reason: 'Major triads a major third above and below share one note with the home triad each: far, and tied to it.',
    places: thirdsApart,
  },
  'side-slip up': {
    reason: 'The home scale, moved up a half step for a moment and back: the figure stays, the key leaves.',
    places: sideSlips(1),
  },
  'side-slip down': {
    reason: 'The home scale, moved down a half step for a moment and back: the figure stays, the key leaves.',
    places: sideSlips(-1),
  },
  'four bars out, four in': {
    reason: 'Where the harmony stays, four bars may leave it, if the next four are home.',
    places: fourAndFour,
  },
  "another chart's changes": {
    reason: 'A progression one knows is a line of its own: laid over this one it keeps its logic.',
    places: changesOfAnother,
  },
} as const satisfies Readonly<Record<string, Recipe>>

export type RecipeName = keyof typeof RECIPES
export const RECIPE_NAMES = Object.keys(RECIPES) as readonly RecipeName[]

/** Every recipe that applies somewhere, with where; those that do not are left out. */
export const recipesIn = (
  ground: Ground,
): readonly { readonly name: RecipeName; readonly reason: string; readonly places: readonly RecipePlace[] }[] =>
  RECIPE_NAMES.map((name) => ({ name, reason: RECIPES[name].reason, places: RECIPES[name].places(ground) })).filter(
    (r) => r.places.length > 0,
  )
