import { readNote, toGlyphs, writtenRoot } from '../../../core/index.ts'
import type { OpenChart } from '../../state/tune/open-chart.ts'

/** A key in the player's written pitch; a topic of the quiz as it is. */
export const keyWords = (key: string, { instrument }: OpenChart): string => {
  const read = readNote(key, 0)
  const isNote = read.ok && read.value.end === key.length
  return isNote ? toGlyphs(writtenRoot(read.value.note, instrument.written).name) : key
}
