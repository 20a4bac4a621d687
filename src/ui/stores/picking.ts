import { atom } from 'nanostores'
import {
  has,
  heardOver,
  midi,
  namesOf,
  type Overlay,
  type PcSet,
  pitchClass,
  readOverlay,
  reverse,
  setOf,
  transposeOverlay,
} from '../../core/index.ts'
import { pitchPhrase } from '../../sound/sound.ts'
import { deskNow } from './actions.ts'
import type { Desk } from './desk.ts'
import { hear } from './hearing.ts'
import { say } from './notices.ts'
import { go } from './place.ts'

/** Whether pressing a key, a fret or a line picks notes instead of only hearing them. */
export const $picking = atom<boolean>(false)
export const turnPicking = (): void => $picking.set(!$picking.get())

/** The notes as an overlay: under its best name, its root kept where it can be, else as the bare notes. */
const overlayOf = (set: PcSet, desk: Desk): Overlay | null => {
  const reading = desk.current?.reading
  if (!reading) return null
  const named = namesOf(set, reading.overlay)[0]
  if (named) return named
  const own = reading.overlay.notes.filter((n) => has(set, n.pc))
  const added = Array.from({ length: 12 }, (_, pc) => pitchClass(pc)).filter(
    (pc) => has(set, pc) && !has(setOf(own.map((n) => n.pc)), pc),
  )
  const names = [...own, ...added.map((pc) => heardOver(reading.place.chord, pc))].map((n) => n.name)
  const read = readOverlay(names.join(' '))
  return read.ok ? read.value : null
}

/** Takes a note into the overlay, or out of it. */
const pick = (pc: number, desk: Desk): void => {
  const overlay = desk.current?.reading?.overlay
  if (!overlay) return
  const set = (overlay.set ^ (1 << pc)) as PcSet
  const picked = overlayOf(set, desk)
  if (!picked) return say('An overlay has two notes at least.')
  go({ over: transposeOverlay(picked, reverse(desk.instrument.written)).name })
}

/** A key, a fret or a head was pressed; the pitch is the written one. */
export const pressPitch = (pitch: number): void => {
  const desk = deskNow()
  if (!desk?.concert) return
  void hear(pitchPhrase(midi(pitch - desk.instrument.written.semitones), desk.concert.chord))
  if ($picking.get()) pick(pitchClass(pitch), desk)
}
