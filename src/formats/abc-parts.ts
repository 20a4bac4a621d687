import { MOST } from '../core/index.ts'

/**
 * The letters of an order of parts as they are played: `A2(BC)3` is A A B C B C B C. Null where it is none, or longer than
 * any chart.
 */
export const partsPlayed = (order: string): readonly string[] | null => {
  const signs = order.replace(/[\s.]/g, '')
  let at = 0
  const times = (): number => {
    const [figure = ''] = /^\d{1,4}/.exec(signs.slice(at)) ?? []
    at += figure.length
    return figure === '' ? 1 : Number(figure)
  }
  const sequence = (depth: number): string[] | null => {
    const letters: string[] = []
    while (at < signs.length && signs[at] !== ')') {
      const sign = signs.charAt(at++)
      const inside = sign === '(' ? sequence(depth + 1) : /[A-Z]/i.test(sign) ? [sign] : null
      if (!inside || depth > MOST_DEEP) return null
      const count = times()
      if (letters.length + inside.length * count > MOST.bars) return null
      for (let i = 0; i < count; i++) letters.push(...inside)
    }
    if (depth > 0 && signs[at++] !== ')') return null
    return letters
  }
  const letters = sequence(0)
  return letters && at === signs.length && letters.length > 0 ? letters : null
}
const MOST_DEEP = 8

/**
 * Bars in the order of parts that the head of a tune says, each part with the bars under its label; what stands before the
 * first label is played once. Null where a part is named that is not there.
 */
export const inPartOrder = <B extends { readonly section: string | null }>(
  bars: readonly B[],
  order: string,
): readonly B[] | null => {
  const letters = partsPlayed(order)
  if (!letters) return null
  const parts = new Map<string, B[]>()
  let part: string | null = null
  for (const bar of bars) {
    part = bar.section?.trim() ?? part
    const own = parts.get(part ?? '') ?? []
    own.push(bar)
    parts.set(part ?? '', own)
  }
  const played = letters.map((letter) => parts.get(letter))
  return played.every((p) => p !== undefined) ? [...(parts.get('') ?? []), ...played.flat()] : null
}
