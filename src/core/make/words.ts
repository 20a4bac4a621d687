import type { HeardNote } from '../line/heard.ts'
import { isHardRoot, type Note, plainNote, spellOn } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'

/** How a line goes from one material into the next: from which note to which, in words. */
export interface Join {
  readonly bar: number
  readonly beat: number
  readonly from: string
  readonly to: string
  readonly how: string
  readonly text: string
}

const SIZES = [
  ...['held', 'half step', 'whole step', 'minor third', 'major third', 'fourth', 'tritone', 'fifth'],
  ...['minor sixth', 'major sixth', 'minor seventh', 'major seventh', 'octave'],
]

/** A motion in semitones as it is said: `half step up`, `held`, `minor third down`. */
export const motionWords = (by: number): string => {
  if (by === 0) return 'held'
  const size = SIZES[Math.abs(by)] ?? `${Math.abs(by)} half steps`
  return `${size} ${by > 0 ? 'up' : 'down'}`
}

/** A note goes on into another material, straight or by notes that lead to it. */
export const joinWords = (
  a: HeardNote,
  led: readonly HeardNote[],
  b: HeardNote,
  [before, after]: readonly [string, string],
): Join => {
  const last = led.at(-1) ?? a
  const how = motionWords(b.pitch - last.pitch)
  const by = led.length > 0 ? `, led to by ${led.map((n) => n.name.name).join(' ')}` : ''
  return {
    ...{ bar: b.bar, beat: b.beat, from: a.name.name, to: b.name.name, how },
    text: `${a.name.name} of ${before} goes to ${b.name.name} of ${after}${by}: ${how}.`,
  }
}

/** A note that leads to another by so many semitones: on the letter before or after it where that reads plainly. */
export const leadingName = (target: Note, by: number): Note => {
  const pc = pitchClass(target.pc + by)
  const spelled = spellOn(target.letter + Math.sign(by), pc)
  return spelled && Math.abs(spelled.alter) < 2 && !isHardRoot(spelled) ? spelled : plainNote(pc)
}
