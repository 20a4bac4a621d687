import type { Fingered } from './fingering.ts'

/** Strokes of alternate picking, and the notes on which a phrase ends upwards although a down-stroke ends it better. */
export interface Picking {
  readonly strokes: readonly ('down' | 'up')[]
  readonly endsUp: readonly number[]
}

/**
 * Alternate strokes for notes in time. A phrase, which a rest ends, begins with the stroke that lets it end downwards,
 * unless it begins on a beat: there it begins downwards. Times in ticks.
 */
export const pickingOf = (notes: readonly { readonly at: number; readonly for: number }[], beat: number): Picking => {
  const strokes: ('down' | 'up')[] = []
  const endsUp: number[] = []
  let from = 0
  for (let i = 0; i < notes.length; i++) {
    const [n, next] = [notes[i], notes[i + 1]]
    if (n && next && next.at <= n.at + n.for) continue
    const count = i - from + 1
    const downFirst = (notes[from]?.at ?? 0) % beat === 0 || count % 2 === 1
    for (let k = 0; k < count; k++) strokes.push((k % 2 === 0) === downFirst ? 'down' : 'up')
    if (strokes.at(-1) === 'up') endsUp.push(i)
    from = i + 1
  }
  return { strokes, endsUp }
}

/** A shape that comes again so many frets higher (or lower) on the same strings: its length in notes, and how far it moves. */
export const repeatingShape = (
  places: readonly (Fingered | null)[],
): { readonly notes: number; readonly frets: number } | null => {
  for (let size = 2; size * 2 <= places.length; size++) {
    const by = (places[size]?.fret ?? 0) - (places[0]?.fret ?? 0)
    const again = places.every((p, i) => {
      const before = places[i - size]
      return i < size || (p && before && p.string === before.string && p.fret - before.fret === by)
    })
    if (again && by !== 0) return { notes: size, frets: by }
  }
  return null
}
