import type { Analysis } from '../chart/analyse.ts'
import type { Chart } from '../chart/chart.ts'
import type { Chord } from '../chord/chord.ts'
import { MATERIALS, type Material } from '../material/material.ts'
import { generatedRoot, type Overlay, placeOn } from '../material/overlay.ts'
import { pitchClass } from '../pitch/units.ts'
import { homeOverlay } from '../reading/home.ts'
import type { School } from '../reading/school.ts'
import type { At, Cut, Slot } from './slots.ts'

/** One place of a recipe: what it lays there, or between which fades it stays. */
export interface RecipePart extends At {
  readonly overlay: Overlay | null
  readonly window: { readonly least: number; readonly most: number } | null
}

/** Where a recipe applies: the bars, why, and what it asks for there. */
export interface RecipePlace {
  readonly fromBar: number
  readonly toBar: number
  /** `the dominant resolves to Em, so ...`: ASCII names. */
  readonly because: string
  readonly cuts: readonly Cut[]
  readonly parts: readonly RecipePart[]
}

/** What recipes are looked for in: a chart spot by spot, and perhaps another to lay over it. */
export interface Ground {
  readonly chart: Chart
  readonly analysis: Analysis
  readonly slots: readonly Slot[]
  readonly school: School
  readonly other: { readonly chart: Chart; readonly shift: number } | null
}

export interface Recipe {
  readonly reason: string
  readonly places: (ground: Ground) => readonly RecipePlace[]
}

/** A material over a slot, its root so many semitones above the chord's. */
export const placed = (material: Material, slot: Slot, up: number): Overlay => {
  const { notes } = homeOverlay(slot.place.home.first)
  const root = generatedRoot(pitchClass(slot.chord.root.pc + up), notes, material)
  return placeOn(root, material)
}

/** A part that lays an overlay over a slot, or over the part of it that begins at a beat. */
export const lay = (slot: Slot, overlay: Overlay, beat = slot.beat): RecipePart => ({
  bar: slot.bar,
  beat,
  overlay,
  window: null,
})

export const place = (
  slots: readonly Slot[],
  because: string,
  parts: readonly RecipePart[],
  cuts: readonly Cut[] = [],
): RecipePlace => ({
  fromBar: slots[0]?.bar ?? 0,
  toBar: slots.at(-1)?.bar ?? 0,
  because,
  cuts,
  parts,
})

/** Neighbouring slots of one chord. */
export const holdsIn = (slots: readonly Slot[]): readonly (readonly Slot[])[] => {
  const holds: Slot[][] = []
  for (const slot of slots) {
    const hold = holds.at(-1)
    if (hold?.[0]?.chord.symbol === slot.chord.symbol) hold.push(slot)
    else holds.push([slot])
  }
  return holds
}

/** A chord's own tones as a material, where the catalogue has it. */
export const arpeggioOf = (chord: Chord): Material | undefined => {
  const fitting = MATERIALS.filter((m) => m.family === 'seventh' || m.family === 'triad')
  return fitting.find((m) => m.set === chord.quality.ownSet)
}

/** The beat that halves a slot, the longer part first; null where it is too short. */
export const halfway = (slot: Slot): number | null => (slot.beats < 2 ? null : slot.beat + Math.ceil(slot.beats / 2))

export const cutAt = (slot: Slot, at: number): Cut => ({ bar: slot.bar, beat: slot.beat, at })
