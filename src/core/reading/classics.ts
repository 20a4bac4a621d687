import { type Chord, isDominant } from '../chord/chord.ts'
import type { materialNamed } from '../material/material.ts'
import { has } from '../pitch/pcset.ts'
import { isOfMinor } from './home-rows.ts'
import type { Place } from './role.ts'

/** What stands over a chord: a chord's tones and its job decide which rows apply. */
type When = (place: Place) => boolean

/** Two triads by their roots above the chord's, or one material on a root above it; `because` is told beside it. */
interface Row {
  readonly when: When
  /** `m 3` is the minor triad a minor third above the root; two of them are a pair. Names as in the catalogue. */
  readonly lay: readonly (readonly [material: MaterialWord, up: number])[]
  readonly because: string
}
type MaterialWord = Parameters<typeof materialNamed>[0]

const one = (when: When, material: MaterialWord, up: number, because: string): Row => ({
  when,
  lay: [[material, up]],
  because,
})
const pair = (
  when: When,
  a: number,
  b: number,
  because: string,
  kinds: readonly [MaterialWord, MaterialWord] = ['', ''],
): Row => ({
  when,
  lay: [
    [kinds[0], a],
    [kinds[1], b],
  ],
  because,
})

const homeIs =
  (...names: readonly MaterialWord[]): When =>
  ({ home }) =>
    names.some((n) => n === home.first.material.name)
const states = ({ quality }: Chord, up: number): boolean => has(quality.statedSet, up) || has(quality.ownSet, up)

const goesHome: When = ({ job }) =>
  job === null || ['V', 'deceptive V', 'delayed V', 'chromatic V', 'blues V'].includes(job.kind)
const plainSymbol: When = ({ chord }) => !chord.quality.recipe.altered && chord.quality.recipe.fifth === '5'
const isDominantSeventh: When = ({ chord }) => chord.family === 'dominant'
const both =
  (...all: readonly When[]): When =>
  (place) =>
    all.every((w) => w(place))

/** A dominant that may be coloured: on its way home, or its symbol already altered. */
const colourable: When = both(isDominantSeventh, (p) => (goesHome(p) && !states(p.chord, 6)) || homeIs('altered')(p))
/** What denies neither its natural 13 nor its b9. */
const halfWhole: When = both(
  isDominantSeventh,
  goesHome,
  ({ job }) => !isOfMinor(job),
  plainSymbol,
  ({ chord }) => !has(chord.quality.deniedSet, 9) && !has(chord.quality.statedSet, 2),
)
const raisedEleven: When = both(isDominantSeventh, homeIs('lydian dominant'))
const plainDominant: When = both(isDominantSeventh, homeIs('mixolydian'))
const staying: When = both(plainDominant, ({ job }) => job !== null && job.kind === 'static dominant')
const toMinor: When = both(isDominantSeventh, homeIs('phrygian dominant'))
const suspended: When = ({ chord, home }) => chord.family === 'suspended' && home.first.material.name === 'mixolydian'
const suspendedFlatNine: When = ({ chord, home }) => isDominant(chord) && home.first.material.name === 'phrygian'
const majorChord: When = ({ chord }) => chord.family === 'major' && chord.quality.recipe.fifth !== 'b5'
const lydianHome: When = both(majorChord, homeIs('lydian'))
const minorSeventh: When = ({ chord, home }) => chord.family === 'minor' && home.first.material.name === 'dorian'
const minorTonic: When = ({ chord, home }) => chord.family === 'minor' && home.first.material.name === 'melodic minor'
const aeolian: When = ({ chord, home }) =>
  chord.family === 'minor' && ['aeolian', 'phrygian'].includes(home.first.material.name)
const halfDiminished: When = ({ chord }) => chord.family === 'half-diminished'
const diminished: When = ({ chord }) => chord.family === 'diminished'
const wholeTone: When = both(isDominantSeventh, homeIs('whole tone'))
const blues: When = ({ job }) => job?.kind.startsWith('blues') === true
const augmented: When = ({ chord }) => chord.family === 'augmented'

/** Where the tonic of a blues lies above its I, IV and V. */
const onBlues = (kind: 'blues I' | 'blues IV' | 'blues V'): When => both(blues, ({ job }) => job?.kind === kind)

/**
 * What teachers show first over a chord, one line each, with its reason. Source: theory page, section 5; the usual jazz
 * textbooks.
 */
export const CLASSICS: readonly Row[] = [
  one(colourable, 'melodic minor', 1, 'the melodic minor a half step above the dominant is its altered scale'),
  one(
    colourable,
    'minor pentatonic',
    3,
    'the tritone partner’s major pentatonic: all the altered tensions and the guide tones in five notes',
  ),
  one(colourable, '', 6, 'the major triad on the b5: the tritone partner itself'),
  one(colourable, '', 8, 'the major triad on the b13: b13, root and #9'),
  pair(colourable, 6, 8, 'the triads on the b5 and the b13 make the altered sound between them'),
  one(colourable, 'm7b5 arpeggio', 10, 'the half-diminished chord on the b7: b7, b9, 3 and b13'),
  one(halfWhole, 'half-whole', 0, 'half-whole keeps the 13 and takes b9, #9 and #11'),
  one(
    both(isDominantSeventh, (p) => goesHome(p) && !has(p.chord.quality.statedSet, 2)),
    'dim7 arpeggio',
    1,
    'the diminished seventh on the b9 is the dominant with its root raised',
  ),
  one(halfWhole, '', 9, 'one of half-whole’s four major triads: 13, b9 and 3'),
  one(halfWhole, '', 3, 'one of half-whole’s four major triads: #9, 5 and b7'),
  one(halfWhole, '', 6, 'one of half-whole’s four major triads: #11, b7 and b9'),
  pair(halfWhole, 0, 6, 'two of half-whole’s four major triads, a tritone apart'),
  pair(halfWhole, 3, 9, 'two of half-whole’s four major triads, a tritone apart, without the root'),
  one(toMinor, 'harmonic minor', 5, 'the harmonic minor of the chord it goes to'),
  one(toMinor, 'm7b5 arpeggio', 7, 'the arpeggio of its ii: 5, b7, b9 and 11'),
  one(toMinor, 'minor pentatonic', 10, 'the minor pentatonic on the b7: b7, b9, #9, 11 and b13'),
  one(toMinor, '+', 0, 'the augmented triad on the root: root, 3 and b13'),
  one(toMinor, 'maj7 arpeggio', 1, 'the major seventh on the b9: b9, 11, b13 and root'),
  one(plainDominant, 'minor pentatonic', 7, 'the minor pentatonic on the 5, with 9 and 11, that of the ii'),
  one(plainDominant, 'minor pentatonic', 9, 'the minor pentatonic on the 13 is the chord’s own major pentatonic'),
  one(plainDominant, 'm7b5 arpeggio', 4, 'from the 3 up to the 9: the ninth chord without its root'),
  one(plainDominant, 'bebop dominant', 0, 'the dominant scale with a passing 7, so that chord tones fall on the beat'),
  one(staying, '', 2, 'the major triad on the 2: 9, #11 and 13'),
  one(staying, '+', 2, 'the augmented triad on the 2: 9, #11 and b7'),
  one(staying, 'melodic minor', 7, 'the melodic minor on the 5 is the Lydian dominant scale'),
  one(staying, 'minor blues', 0, 'the blues scale on its root'),
  one(staying, 'major blues', 0, 'the major blues scale on its root'),
  pair(staying, 0, 2, 'the triads on the root and the 2 make the Lydian dominant sound'),
  one(raisedEleven, '', 2, 'the major triad on the 2: 9, #11 and 13'),
  one(raisedEleven, 'melodic minor', 7, 'the melodic minor on the 5 is the Lydian dominant scale'),
  pair(raisedEleven, 0, 2, 'the triads on the root and the 2 make the Lydian dominant sound'),
  one(raisedEleven, '+', 2, 'the augmented triad on the 2: 9, #11 and b7'),
  one(raisedEleven, 'm7b5 arpeggio', 4, 'from the 3 up to the 9: the ninth chord without its root'),
  one(raisedEleven, 'minor 6 pentatonic', 7, 'the minor 6 pentatonic on the 5 holds 9, 3 and b7 without an 11'),
  one(suspended, '', 10, 'the major triad on the b7: b7, 9 and 4'),
  pair(suspended, 10, 0, 'the triads on the b7 and the root are the suspended sound'),
  one(suspended, 'minor pentatonic', 7, 'the minor pentatonic on the 5: the ii over the dominant’s root'),
  one(suspended, 'minor pentatonic', 2, 'the minor pentatonic on the 9, without the 3'),
  one(suspended, 'maj7 arpeggio', 10, 'the major seventh on the b7: b7, 9, 4 and 13'),
  one(suspended, 'm7 arpeggio', 7, 'the ii over the dominant’s root: 5, b7, 9 and 4'),
  one(suspendedFlatNine, '', 1, 'the major triad on the b9: b9, 4 and b13'),
  one(suspendedFlatNine, 'maj7 arpeggio', 1, 'the major seventh on the b9'),
  one(suspendedFlatNine, 'minor pentatonic', 10, 'the minor pentatonic on the b7'),
  one(majorChord, 'minor pentatonic', 4, 'the minor pentatonic on the 3: 3, 5, 13, 7 and 9, every colour and no 11'),
  one(lydianHome, 'minor pentatonic', 11, 'the minor pentatonic on the 7, with the #11'),
  one(majorChord, 'minor pentatonic', 11, 'the minor pentatonic on the 7, with the #11'),
  one(majorChord, 'minor pentatonic', 9, 'the minor pentatonic on the 6 is the chord’s own major pentatonic'),
  one(majorChord, '', 7, 'the major triad on the 5: 5, 7 and 9'),
  one(majorChord, '', 2, 'the major triad on the 2: 9, #11 and 13'),
  one(majorChord, 'm', 4, 'the minor triad on the 3: the chord without its root'),
  one(majorChord, 'm7 arpeggio', 4, 'from the 3 up to the 9: the ninth chord without its root'),
  pair(both(majorChord, homeIs('ionian')), 7, 9, 'the triads on the 5 and the 6: the scale without its 4', ['', 'm']),
  pair(lydianHome, 0, 2, 'the triads on the root and the 2 make the Lydian sound'),
  one(minorSeventh, 'minor pentatonic', 0, 'its own minor pentatonic'),
  one(minorSeventh, 'minor pentatonic', 2, 'the minor pentatonic on the 9, with the 13'),
  one(minorSeventh, 'minor pentatonic', 7, 'the minor pentatonic on the 5, with the 9'),
  one(minorSeventh, '', 3, 'the major triad on the b3: the chord without its root'),
  one(minorSeventh, '', 5, 'the major triad on the 4: 11, 13 and root'),
  one(minorSeventh, '', 10, 'the major triad on the b7: b7, 9 and 11'),
  one(minorSeventh, 'maj7 arpeggio', 3, 'from the b3 up to the 9: the ninth chord without its root'),
  pair(minorSeventh, 3, 5, 'the triads on the b3 and the 4 make the Dorian sound'),
  one(minorTonic, 'melodic minor', 0, 'the tonic’s melodic minor'),
  one(minorTonic, 'minor 6 pentatonic', 0, 'the minor pentatonic with its 6'),
  one(minorTonic, '', 5, 'the major triad on the 4: 11, 6 and root'),
  one(minorTonic, '', 7, 'the major triad on the 5: 5, 7 and 9'),
  one(minorTonic, '+', 3, 'the augmented triad on the b3: b3, 5 and 7'),
  pair(minorTonic, 5, 7, 'the triads on the 4 and the 5 make the melodic minor sound'),
  one(minorTonic, 'mMaj7 arpeggio', 0, 'the tonic with its major seventh'),
  one(minorTonic, 'minor pentatonic', 2, 'the minor pentatonic on the 9'),
  one(aeolian, 'minor pentatonic', 0, 'its own minor pentatonic'),
  one(aeolian, '', 3, 'the major triad on the b3: the chord without its root'),
  one(aeolian, '', 10, 'the major triad on the b7: b7, 9 and 11'),
  one(halfDiminished, 'melodic minor', 3, 'the melodic minor on the b3 is Locrian with its natural 9'),
  one(halfDiminished, 'minor pentatonic', 5, 'the minor pentatonic on the 4: 11, b13, b7, root and b3'),
  one(halfDiminished, 'm', 3, 'the minor triad on the b3: the chord without its root'),
  one(halfDiminished, '', 8, 'the major triad on the b13: b13, root and b3'),
  one(halfDiminished, 'mMaj7 arpeggio', 3, 'from the b3 up to the natural 9'),
  one(halfDiminished, 'minor b5 pentatonic', 0, 'its own pentatonic'),
  one(diminished, 'whole-half', 0, 'its own scale: a half step below each chord tone'),
  one(diminished, 'dim7 arpeggio', 2, 'the diminished seventh a whole step up holds all its tensions'),
  one(diminished, '', 11, 'the major triad a half step below: 7, b3 and b5'),
  one(diminished, '', 2, 'the major triad a whole step above, a half step below a chord tone'),
  one(diminished, '', 5, 'the major triad a fourth above, a half step below a chord tone'),
  one(diminished, '', 8, 'the major triad a minor sixth above, a half step below its 6'),
  one(wholeTone, 'whole tone', 0, 'every note of it keeps the raised fifth and the natural 9'),
  one(wholeTone, '+', 0, 'the chord’s own augmented triad'),
  one(wholeTone, '+', 2, 'the other augmented triad: 9, #11 and b7'),
  pair(wholeTone, 0, 2, 'the two augmented triads of the whole-tone scale', ['+', '+']),
  one(augmented, '', 4, 'the major triad on the 3: 3, #5 and 7'),
  one(augmented, 'lydian augmented', 0, 'the Lydian scale with the chord’s raised fifth'),
  one(augmented, 'augmented scale', 0, 'the chord’s own symmetric scale'),
  one(both(blues, isDominantSeventh), '', 2, 'the major triad on the 2: 9, #11 and 13'),
  one(both(blues, isDominantSeventh), '+', 2, 'the augmented triad on the 2: 9, #11 and b7'),
  one(both(blues, isDominantSeventh), 'melodic minor', 7, 'the melodic minor on the 5 is the Lydian dominant scale'),
  pair(both(blues, isDominantSeventh), 0, 2, 'the triads on the root and the 2 make the Lydian dominant sound'),
  one(both(blues, isDominantSeventh), 'm', 7, 'the minor triad on the 5: 5, b7 and 9'),
  one(
    both(blues, isDominantSeventh),
    'bebop dominant',
    0,
    'the dominant scale with a passing 7, so that chord tones fall on the beat',
  ),
  one(
    onBlues('blues IV'),
    'dim7 arpeggio',
    1,
    'the diminished seventh a half step above the IV, as in the form’s sixth bar',
  ),
  one(onBlues('blues I'), 'dim7 arpeggio', 1, 'the diminished seventh on the b9, on the way to the IV'),
  one(onBlues('blues I'), 'minor blues', 0, 'the tonic’s blues scale, the same over the whole form'),
  one(onBlues('blues IV'), 'minor blues', 7, 'the tonic’s blues scale, the same over the whole form'),
  one(onBlues('blues V'), 'minor blues', 5, 'the tonic’s blues scale, the same over the whole form'),
  one(onBlues('blues I'), 'major blues', 0, 'the tonic’s major blues scale'),
  one(onBlues('blues IV'), 'major blues', 7, 'the tonic’s major blues scale'),
  one(onBlues('blues V'), 'major blues', 5, 'the tonic’s major blues scale'),
  one(onBlues('blues I'), 'minor pentatonic', 0, 'the tonic’s minor pentatonic'),
  one(onBlues('blues IV'), 'minor pentatonic', 7, 'the tonic’s minor pentatonic'),
  one(onBlues('blues V'), 'minor pentatonic', 5, 'the tonic’s minor pentatonic'),
]

/** The rows that apply over a chord where it stands. */
export const classicsOver = (place: Place): readonly Row[] => CLASSICS.filter((row) => row.when(place))
export type Classic = Row
