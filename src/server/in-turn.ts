/** A queue of work: what is given to it is done one after the other, whatever became of what went before. */
export const inTurn = () => {
  let last: Promise<unknown> = Promise.resolve()
  return <T>(work: () => Promise<T>): Promise<T> => {
    const next = last.then(work, work)
    last = next.catch(() => undefined)
    return next
  }
}
