/** A stretch of a line by the places of its first and last note. */
export interface Span {
  readonly from: number
  readonly to: number
}

/** For each place of a line, the first of these that covers it. */
export const coverOf = <S extends Span>(spans: readonly S[], size: number): readonly (S | undefined)[] => {
  const cover: (S | undefined)[] = Array.from({ length: size })
  for (const s of spans) for (let i = s.from; i <= s.to; i++) cover[i] ??= s
  return cover
}

/** The longest first, then as `then` orders them, each kept where it lies over none that was; in the order of the line. */
export const longestApart = <S extends Span>(
  spans: readonly S[],
  size: number,
  then: (a: S, b: S) => number,
): readonly S[] => {
  const taken = new Uint8Array(size)
  const kept: S[] = []
  for (const s of [...spans].sort((a, b) => b.to - b.from - (a.to - a.from) || then(a, b))) {
    // What was kept is no shorter, so that one end of this would lie in it.
    if (taken[s.from] || taken[s.to]) continue
    taken.fill(1, s.from, s.to + 1)
    kept.push(s)
  }
  return kept.sort((a, b) => a.from - b.from)
}
