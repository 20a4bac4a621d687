/** Work that waits for a thread. Each asker has a queue, and the queues take turns. */
export interface Turns<W> {
  /** Whether there was room for it. */
  readonly add: (asker: string, work: W) => boolean
  readonly next: () => W | undefined
  /** Takes it out of the line; false where it is not in it any more. */
  readonly drop: (asker: string, work: W) => boolean
}

/** Room for so many of one asker, and so many in all. */
export const turnsOf = <W>(ofOne: number, inAll: number): Turns<W> => {
  const queues = new Map<string, W[]>()
  let waiting = 0
  return {
    add: (asker, work) => {
      const own = queues.get(asker) ?? []
      if (own.length >= ofOne || waiting >= inAll) return false
      own.push(work)
      queues.set(asker, own)
      waiting++
      return true
    },
    next: () => {
      const [first] = queues
      if (!first) return undefined
      const [asker, own] = first
      const work = own.shift()
      queues.delete(asker)
      // To the end of the line, behind everyone else.
      if (own.length > 0) queues.set(asker, own)
      waiting--
      return work
    },
    drop: (asker, work) => {
      const own = queues.get(asker)
      const at = own?.indexOf(work) ?? -1
      if (!own || at < 0) return false
      own.splice(at, 1)
      if (own.length === 0) queues.delete(asker)
      waiting--
      return true
    },
  }
}
