/** The answer remembered for the arguments asked last: a key press moves about in a tune and does not change it. */
export const latest = <A extends readonly unknown[], R>(work: (...args: A) => R): ((...args: A) => R) => {
  let last: { readonly args: A; readonly answer: R } | null = null
  return (...args) => {
    if (!last?.args.every((a, i) => a === args[i])) last = { args, answer: work(...args) }
    return last.answer
  }
}

/** Answers by what was asked, the last few of them: what was worked out first goes first. */
export const lastFew = <R>(most: number) => {
  const all = new Map<string, R>()
  return {
    get: (words: string): R | undefined => all.get(words),
    clear: (): void => all.clear(),
    keep: (words: string, answer: R): R => {
      all.set(words, answer)
      const [oldest] = all.keys()
      if (all.size > most && oldest !== undefined) all.delete(oldest)
      return answer
    },
  }
}
