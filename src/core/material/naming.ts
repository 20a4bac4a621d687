import { rotate } from '../pitch/pcset.ts'
import { type PcSet, type PitchClass, pitchClass } from '../pitch/units.ts'
import { MATERIALS, type Material } from './material.ts'
import { generatedRoot, type Overlay, placeOn } from './overlay.ts'

interface Placement {
  readonly pc: PitchClass
  readonly material: Material
}

const placements = new Map<PcSet, Placement[]>()
for (const material of MATERIALS)
  for (let n = 0; n < 12; n++) {
    const set = rotate(material.set, n)
    placements.set(set, [...(placements.get(set) ?? []), { pc: pitchClass(n), material }])
  }

const FAMILY_ORDER = ['triad', 'seventh', 'pentatonic', 'mode', 'bebop', 'blues', 'symmetric']

/**
 * Every named overlay that has exactly these notes: those on the given root first, then upward from it, then in the
 * order triad, seventh, pentatonic, mode, symmetric. Roots take their spelling from the overlay's own notes.
 */
export const namesOf = (set: PcSet, like: Overlay): readonly Overlay[] =>
  [...(placements.get(set) ?? [])]
    .sort(
      (a, b) =>
        pitchClass(a.pc - like.root.pc) - pitchClass(b.pc - like.root.pc) ||
        FAMILY_ORDER.indexOf(a.material.family) - FAMILY_ORDER.indexOf(b.material.family),
    )
    .map(({ pc, material }) => placeOn(generatedRoot(pc, like.notes, material), material))

export const isNamed = (set: PcSet): boolean => placements.has(set)
