import { POSITIONS, type Position, readTuning, TUNINGS, type Tuning, WHOLE_NECK } from '../../core/index.ts'

const USUAL: Tuning = (() => {
  const read = readTuning(TUNINGS[0].strings)
  if (!read.ok) throw new Error('a tuning of our own does not read')
  return read.value
})()

/** Open strings from what was set; the usual ones where that does not read. */
export const tuningFrom = (text: string): Tuning => {
  const read = readTuning(text)
  return read.ok ? read.value : USUAL
}

export const tuningName = (text: string): string => TUNINGS.find((t) => t.strings === text)?.name ?? 'Own tuning'

export const NECK_CHOICES: readonly Position[] = [WHOLE_NECK, ...POSITIONS]
export const positionName = ({ from, to }: Position): string =>
  from === 0 && to > 5 ? 'whole neck' : from === 0 ? `open to ${to}` : `frets ${from} to ${to}`
