/** How long a piece of work may go on before whoever waits is asked, in milliseconds. */
const PIECE_MS = 12

/**
 * Runs long work a piece at a time. After each piece `rest` is told the share done, 0..1, and says whether to go on; null
 * where it was stopped. `clock` gives milliseconds: the core has none of its own.
 */
export const inPieces = async <T>(
  work: Generator<number, T>,
  rest: (share: number) => Promise<boolean>,
  clock: () => number,
): Promise<T | null> => {
  let since = clock()
  let share = 0
  for (let next = work.next(); ; next = work.next()) {
    if (next.done) return next.value
    share = Math.max(share, next.value)
    if (clock() - since < PIECE_MS) continue
    if (!(await rest(share))) return null
    since = clock()
  }
}
