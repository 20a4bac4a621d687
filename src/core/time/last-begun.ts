/** Of so many things in order, the place of the last that begins at a moment or before it; 0 where none does. */
export const lastBegun = (count: number, beginOf: (i: number) => number, at: number): number => {
  let [low, high] = [0, count - 1]
  while (low < high) {
    const middle = Math.ceil((low + high) / 2)
    if (beginOf(middle) <= at) low = middle
    else high = middle - 1
  }
  return low
}
