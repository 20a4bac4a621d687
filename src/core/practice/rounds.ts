import type { ItemOf } from './items.ts'
import { type RoundVariant, variantsOf } from './stage.ts'

/** How rounds follow each other: `hearFirst`: each is heard once before it is played. */
export interface RoundsAsked {
  readonly of: ItemOf
  readonly keys: readonly string[]
  readonly hearFirst: boolean
}

/** One round: its key, what lies in it, whether the line sounds, and its place among those of its key, from 1. */
export interface Round {
  readonly key: string
  readonly variant: RoundVariant
  readonly heard: boolean
  readonly inKey: number
  readonly ofKey: number
}

const roundsOfKey = ({ of, hearFirst }: RoundsAsked): readonly Pick<Round, 'variant' | 'heard'>[] =>
  variantsOf(of).flatMap((variant) => {
    const heard = hearFirst && variant.kind !== 'free' ? [true, false] : [false]
    return heard.map((isHeard) => ({ variant, heard: isHeard }))
  })

/** The round of a number, from 0; after the last key the first comes again. */
export const roundAt = (asked: RoundsAsked, number: number): Round => {
  const inKey = roundsOfKey(asked)
  const at = number % inKey.length
  const key = asked.keys[Math.floor(number / inKey.length) % Math.max(1, asked.keys.length)] ?? 'C'
  return { key, ...(inKey[at] as (typeof inKey)[number]), inKey: at + 1, ofKey: inKey.length }
}
