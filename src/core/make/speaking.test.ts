import { describe, expect, it } from 'vitest'
import { COMPASSES, compass } from '../pitch/horns.ts'
import { lineOfWords } from '../testing/lines.ts'
import { speakingOf } from './speaking.ts'

const on = (id: string, words: string) => {
  const instrument = compass(id)
  if (!instrument) throw new Error(id)
  return speakingOf(lineOfWords(words), instrument, 960, 3840)
}

describe('what a player should know of a line', () => {
  it('is nothing where it lies well', () => {
    expect(on('alto', 'C4 D4 E4 Eb4')).toEqual([])
    expect(on('trumpet', 'C4 D4 E4 F4 G4 A4 Bb4 C5')).toEqual([])
  })
  it('names what lies outside, the break, and the breath', () => {
    expect(on('alto', 'C3 E4')).toEqual(['One note lies outside the compass of the alto saxophone.'])
    // Written C#5 and D5 on an alto sound E4 and F4.
    expect(on('alto', 'E4 F4 E4 F4')).toEqual(['It goes over the break 3 times.'])
    expect(on('trumpet', Array.from({ length: 48 }, () => 'C4').join(' '))).toEqual([
      '6 bars without a place to breathe: leave a rest.',
    ])
    expect(on('piano', Array.from({ length: 48 }, () => 'C4').join(' '))).toEqual([])
    expect(on('trumpet', `${'C4 '.repeat(24)}. ${'C4 '.repeat(23)}`)).toEqual([])
  })
  it('goes by a table whose every row has a compass', () => {
    expect(COMPASSES.length).toBeGreaterThan(5)
    for (const c of COMPASSES) {
      expect(c.high - c.low, c.name).toBeGreaterThan(20)
      if (c.under !== null) expect(c.under > c.low && c.under < c.high).toBe(true)
    }
  })
})
