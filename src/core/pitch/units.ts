declare const unit: unique symbol
type Unit<N extends string> = number & { readonly [unit]: N }

/** 0..11, C = 0. */
export type PitchClass = Unit<'PitchClass'>
/** A 12-bit mask: bit p stands for pitch class p. */
export type PcSet = Unit<'PcSet'>
/** Musical time in whole ticks, 960 to a quarter. */
export type Ticks = Unit<'Ticks'>
/** MIDI note number, C4 = 60. */
export type Midi = Unit<'Midi'>

export const TICKS_PER_QUARTER = 960
export const EMPTY_SET = 0 as PcSet

/** Any whole number of semitones above C, folded into 0..11. */
export const pitchClass = (semitones: number): PitchClass => (((semitones % 12) + 12) % 12) as PitchClass
export const ticks = (n: number): Ticks => Math.round(n) as Ticks
export const midi = (n: number): Midi => n as Midi
