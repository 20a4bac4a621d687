import { fail, ok, type Result, type TextError } from '../result.ts'
import type { Metre } from './chart.ts'

/** `4/4`, `7/8`: 1 to 32 beats of a half to a sixteenth. */
export const readMetre = (text: string): Result<Metre, TextError> => {
  const match = /^(\d{1,2})\/(2|4|8|16)$/.exec(text)
  const beats = Number(match?.[1])
  return match && beats >= 1 && beats <= 32
    ? ok({ beats, unit: Number(match[2]) as Metre['unit'] })
    : fail({ code: 'bad_header', at: 0, found: text, expected: ['a metre such as 4/4 or 7/4'] })
}
