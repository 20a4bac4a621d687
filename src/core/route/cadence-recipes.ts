import type { Chain } from '../chart/chains.ts'
import { canBeII, upTo } from '../chart/holds.ts'
import { type Chord, isDominant } from '../chord/chord.ts'
import { materialNamed } from '../material/material.ts'
import { has } from '../pitch/pcset.ts'
import { readOver } from '../reading/read.ts'
import { listed } from '../reading/sentence.ts'
import { arpeggioOf, cutAt, type Ground, halfway, lay, place, placed, type RecipePlace } from './recipe.ts'
import type { Slot } from './slots.ts'

interface Cadence {
  readonly ii: readonly Slot[]
  readonly v: readonly Slot[]
  readonly i: readonly Slot[]
}

/** Every ii–V–I that lies wholly within the slots. */
const cadencesIn = ({ analysis, slots }: Ground): readonly Cadence[] => {
  const within = (from: number, to: number): readonly Slot[] =>
    slots.filter((s) => s.spot.index >= from && s.spot.index <= to)
  const ends = (hold: Chain['from']): readonly [number, number] => [
    hold.spots[0]?.index ?? 0,
    hold.spots.at(-1)?.index ?? 0,
  ]
  return analysis.chains
    .filter((c) => c.kind === 'ii-V-I')
    .flatMap((chain) => {
      const [[from, end], [to, last]] = [ends(chain.from), ends(chain.to)]
      const found = { ii: within(from, end), v: within(end + 1, to - 1), i: within(to, last) }
      return found.ii.length > 0 && found.v.length > 0 && found.i.length > 0 ? [found] : []
    })
}

const chordsOf = (...slots: readonly (readonly Slot[])[]): string => slots.map((s) => s[0]?.chord.symbol).join(' ')

/** Whether the second chord's root lies a fifth below the first's. */
const fallsAFifth = (from: Slot | undefined, to: Slot | undefined): boolean =>
  from !== undefined && to !== undefined && upTo(from.chord, to.chord) === 5

/** Over a half-diminished ii the shape would hold the natural 5, so there the climb begins on the V. */
export const risingPentatonics = (ground: Ground): readonly RecipePlace[] =>
  cadencesIn(ground)
    .filter(({ v, i }) => i[0]?.chord.family === 'major' && fallsAFifth(v[0], i[0]))
    .map(({ ii, v, i }) => {
      const shape = materialNamed('minor pentatonic')
      const climb = [ii[0]?.chord.family === 'minor' ? ii : [], v, i]
      const degrees = [7, 3, 11]
      const parts = climb.flatMap((slots, n) => slots.map((s) => lay(s, placed(shape, s, degrees[n] ?? 0))))
      const roots = [...new Set(parts.map((p) => p.overlay?.root.name))].join(', ')
      return place(climb.flat(), `${chordsOf(ii, v, i)} resolves to major, so the shape can climb: ${roots}.`, parts)
    })

/** Slots from which a dominant goes home by a fifth, with the slot it reaches. */
const goingHome = ({ slots }: Ground): readonly (readonly [Slot, Slot])[] =>
  slots.flatMap((s, i) => {
    const next = slots[i + 1]
    const { job, resolves } = s.spot
    const plain = s.chord.family === 'dominant'
    return next && resolves && plain && job?.kind === 'V' && s.place.next?.symbol === next.chord.symbol
      ? [[s, next] as const]
      : []
  })

const statesNatural = (chord: Chord): boolean => has(chord.quality.statedSet, 2) || has(chord.quality.statedSet, 9)

export const partnersPentatonic = (ground: Ground): readonly RecipePlace[] =>
  goingHome(ground)
    .filter(([v, i]) => !statesNatural(v.chord) && (i.chord.family === 'major' || i.chord.family === 'dominant'))
    .map(([v, i]) => {
      const shape = materialNamed('major pentatonic')
      const [partner, home] = [placed(shape, v, 6), placed(shape, i, 0)]
      const because = `${v.chord.symbol} goes home to ${i.chord.symbol}, so ${partner.name} slides down into ${home.name}.`
      return place([v, i], because, [lay(v, partner), lay(i, home)])
    })

export const diminishedIntoNext = (ground: Ground): readonly RecipePlace[] =>
  goingHome(ground)
    .filter(([v]) => !statesNatural(v.chord))
    .flatMap(([v, i]) => {
      const shape = placed(materialNamed('dim7 arpeggio'), v, 1)
      const half = readOver(shape, v.place).notes.filter((n) => n.exits.some((e) => e.how.startsWith('half')))
      if (half.length < shape.notes.length - 1) return []
      const names = listed(half.map((n) => n.note.name))
      const because = `${v.chord.symbol} resolves to ${i.chord.symbol}, so of ${shape.name} ${names} have a half step to go.`
      return [place([v], because, [lay(v, shape)])]
    })

/** Whether a dominant lets its natural 5 and 13 stand, which half-whole needs. */
const takesHalfWhole = ({ quality }: Chord): boolean =>
  quality.recipe.fifth === '5' && !quality.recipe.altered && !has(quality.statedSet, 8) && !has(quality.statedSet, 2)

export const halfWholeOver = (ground: Ground): readonly RecipePlace[] =>
  cadencesIn(ground)
    .filter(({ v }) => v.every((s) => s.chord.family === 'dominant' && takesHalfWhole(s.chord)))
    .map(({ ii, v, i }) => {
      const shape = placed(materialNamed('half-whole'), v[0] as Slot, 0)
      const because = `${chordsOf(ii, v)} leads to ${chordsOf(i)}, so ${shape.name} may begin on the ii.`
      return place(
        [...ii, ...v],
        because,
        [...ii, ...v].map((s) => lay(s, shape)),
      )
    })

const rests = (slot: Slot): boolean =>
  !isDominant(slot.chord) && !slot.spot.job?.kind.startsWith('ii') && slot.chord.family !== 'diminished'

export const chromaticNeighbours = ({ slots }: Ground): readonly RecipePlace[] =>
  slots.flatMap((slot, i) => {
    const [next, at] = [slots[i + 1], halfway(slot)]
    const own = next && arpeggioOf(next.chord)
    if (!next || !own || at === null || !rests(next) || next.chord.symbol === slot.chord.symbol) return []
    const neighbour = placed(own, next, 1)
    const because = `${next.chord.symbol} is where it comes to rest, so ${neighbour.name} may fall into it.`
    return [place([slot], because, [lay(slot, neighbour, at)], [cutAt(slot, at)])]
  })

export const descendingPairs = (ground: Ground): readonly RecipePlace[] =>
  cadencesIn(ground).flatMap(({ ii, v, i }) => {
    const [first, second] = [ii[0], v[0]]
    const at = first && ii.length === 1 ? halfway(first) : null
    const then = second && v.length === 1 ? halfway(second) : null
    if (!first || !second || at === null || then === null || !canBeII(first.chord)) return []
    if (second.chord.family !== 'dominant' || !fallsAFifth(second, i[0])) return []
    const [minor, dominant] = [
      materialNamed(first.chord.family === 'half-diminished' ? 'm7b5 arpeggio' : 'm7 arpeggio'),
      materialNamed('7 arpeggio'),
    ]
    const parts = [
      lay(first, placed(minor, first, 1)),
      lay(first, placed(dominant, first, 6), at),
      lay(second, placed(minor, second, 7)),
      lay(second, placed(dominant, second, 0), then),
    ]
    const because = `${chordsOf(ii, v)} leads to ${chordsOf(i)} with time for two chords on each, so it may come from a half step above.`
    return [place([first, second], because, parts, [cutAt(first, at), cutAt(second, then)])]
  })
