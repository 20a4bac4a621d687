import type { Jumps } from '../core/index.ts'

/** A sign of a jump as a file has it; a coda's sign, in a bar or after it, stands where one leaves for it and where it begins. */
export type JumpSign = 'segno' | 'coda' | 'coda after' | 'tocoda' | 'fine' | 'dacapo' | 'dalsegno'

/** Signs in words, as they are printed. */
const WORDS: readonly (readonly [JumpSign, RegExp])[] = [
  ['dacapo', /^(d\.?\s*c\.?|da\s*capo)(\s+al\b.*)?$/i],
  ['dalsegno', /^(d\.?\s*s\.?|dal\s*segno)(\s+al\b.*)?$/i],
  ['tocoda', /^(al|to)\s+coda\b/i],
  ['coda', /^coda$/i],
  ['segno', /^segno$/i],
  ['fine', /^(al\s+)?fine\.?$/i],
]
export const signOfWords = (words: string): JumpSign | null =>
  WORDS.find(([, form]) => form.test(words.trim()))?.[0] ?? null

/** What the signs of each bar say of the form. Of several bare signs of a coda the last is where it begins. */
export const jumpsOf = (bars: readonly (readonly JumpSign[])[]): readonly (Jumps | undefined)[] => {
  const last = bars.findLastIndex((signs) => signs.some((s) => s.startsWith('coda')))
  const lastCoda = bars[last]?.includes('coda') ? last : last < 0 ? -1 : last + 1
  return bars.map((signs, i): Jumps | undefined => {
    if (signs.length === 0 && i !== lastCoda) return undefined
    const has = (sign: JumpSign): true | undefined => signs.includes(sign) || undefined
    return {
      segno: has('segno'),
      coda: i === lastCoda || undefined,
      toCoda: has('tocoda') ?? (i < last ? (has('coda') ?? has('coda after')) : undefined),
      fine: has('fine'),
      back: signs.includes('dacapo') ? 'start' : signs.includes('dalsegno') ? 'segno' : undefined,
    }
  })
}
