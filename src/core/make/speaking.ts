import { endOf, type Line } from '../line/line.ts'
import type { Compass } from '../pitch/horns.ts'

/** More bars than this in one breath are told. */
const BREATH_BARS = 4

/** How many times a line (sounding pitches) goes over the break of an instrument. */
const crossings = (line: Line, { under, up }: Compass): number =>
  under === null
    ? 0
    : line.filter((n, i) => {
        const before = line[i - 1]
        return before !== undefined && n.pitch + up > under !== before.pitch + up > under
      }).length

/** The longest stretch without a rest of half a beat, in ticks. */
const longestBreath = (line: Line, beat: number): number => {
  let [longest, from] = [0, line[0]?.at ?? 0]
  for (const [i, n] of line.entries()) {
    const next = line[i + 1]
    longest = Math.max(longest, endOf(n) - from)
    if (next && next.at - endOf(n) >= beat / 2) from = next.at
  }
  return longest
}

/** What a player of an instrument should know of a line: what lies outside its compass, its break, and where to breathe. */
export const speakingOf = (line: Line, instrument: Compass, beat: number, bar: number): readonly string[] => {
  const { low, high, up, name, blown } = instrument
  const out = line.filter((n) => n.pitch + up < low || n.pitch + up > high).length
  const over = crossings(line, instrument)
  const bars = Math.floor(longestBreath(line, beat) / bar)
  return [
    ...(out > 0 ? [`${out === 1 ? 'One note lies' : `${out} notes lie`} outside the compass of the ${name}.`] : []),
    ...(over > 0 ? [`It goes over the break ${over === 1 ? 'once' : `${over} times`}.`] : []),
    ...(blown && bars > BREATH_BARS ? [`${bars} bars without a place to breathe: leave a rest.`] : []),
  ]
}
