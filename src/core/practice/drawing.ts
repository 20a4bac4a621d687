/** A number from 0 up to 1, as it is drawn. */
export type Rng = () => number

/** One of several, by chance. */
export const drawn = <T>(all: readonly T[], rng: Rng): T => all[Math.floor(rng() * all.length)] as T
