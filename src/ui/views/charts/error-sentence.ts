import { type TextError, toGlyphs } from '../../../core/index.ts'

/** What is wrong, in one sentence. */
export const errorSentence = (e: TextError): string =>
  `${e.found ? `“${toGlyphs(e.found)}” is not understood` : 'Something is missing'}: expected ${e.expected.slice(0, 4).map(toGlyphs).join(', ')}.`
