import { expect, it } from 'vitest'
import { sentenceByPlace } from './verdict-places.ts'

const at = (bar: number, beat: number) => ({ bar, beat }) as Parameters<typeof sentenceByPlace>[1][number]
const notes = [at(4, 1), at(4, 1.5), at(4, 2), at(4, 4.5), at(5, 1)]

it.each([
  ['Notes 1-3 enclose G (the 1 of Gmaj7).', 'The notes in bar 4, beats 1–2 enclose G (the 1 of Gmaj7).'],
  ['Notes 2-5 are away from home.', 'The notes from bar 4, beat 1½ to bar 5, beat 1 are away from home.'],
  ['Note 4, B, comes early: it belongs to E7.', 'Bar 4, beat 4½: B comes early: it belongs to E7.'],
  [
    'Note 5, C (the 11 of G7), stands on a strong beat and does not land.',
    'Bar 5, beat 1: C (the 11 of G7) stands on a strong beat and does not land.',
  ],
  ['Note 3 is away from home.', 'The note on bar 4, beat 2 is away from home.'],
  ['It ends on A (the 9 of Gmaj7), held.', 'It ends on A (the 9 of Gmaj7), held.'],
  ['Notes 7-9 repeat.', 'Notes 7-9 repeat.'],
])('%s is told by bars and beats', (text, told) => expect(sentenceByPlace(text, notes)).toBe(told))
