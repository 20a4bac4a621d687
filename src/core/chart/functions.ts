import { type Chord, isDominant } from '../chord/chord.ts'
import { degreeIn, dominantAt, iiJob, type Judged } from './dominants.ts'
import { canBeII, type Form, goalOf, type Hold, iiBefore, upTo } from './holds.ts'
import { diminishedJob, type Job, to } from './job.ts'
import { kindOf, type PlainKey } from './keys.ts'

const plain = (kind: 'tonic' | 'subdominant' | 'borrowed', on: string, mode: PlainKey['mode']): Judged => ({
  job: { kind, on, mode },
  resolves: false,
})

/** As the chord after it tells. */
const diminishedAt = (form: Form, hold: Hold): Job => diminishedJob(hold.chord, goalOf(form, hold)?.chord ?? null)

type Rest = 'tonic' | 'subdominant'
/** What a chord at rest is in its key, by degree; what is not listed is borrowed. */
const RESTS: Readonly<Record<PlainKey['mode'], Readonly<Record<string, Rest>>>> = {
  major: {
    '1M': 'tonic',
    '4M': 'subdominant',
    '2m': 'subdominant',
    '2m7': 'subdominant',
    '3m': 'tonic',
    '3m7': 'tonic',
    '6m': 'tonic',
    '6m7': 'tonic',
    '#4ø': 'subdominant',
    '1P': 'tonic',
    '4P': 'subdominant',
    '1+': 'tonic',
  },
  minor: {
    '1m': 'tonic',
    '1m7': 'tonic',
    '1M': 'tonic',
    b3M: 'tonic',
    'b3+': 'tonic',
    '4m': 'subdominant',
    '4m7': 'subdominant',
    '5m': 'subdominant',
    '5m7': 'subdominant',
    '2ø': 'subdominant',
    '2m7': 'subdominant',
    b6M: 'subdominant',
    b7M: 'subdominant',
    b2M: 'subdominant',
    '6ø': 'tonic',
    '1P': 'tonic',
    '4P': 'subdominant',
  },
}

const isTriadOfV = (chord: Chord, next: Hold | null): next is Hold =>
  (chord.family === 'major' || chord.family === 'augmented') &&
  chord.quality.recipe.seventh === null &&
  next !== null &&
  upTo(chord, next.chord) === 5

const restAt = (form: Form, hold: Hold, key: PlainKey): Judged => {
  const { chord } = hold
  const degree = degreeIn(key, chord)
  const next = goalOf(form, hold)
  const asV = chord.family === 'augmented' || degree === '5'
  if (asV && isTriadOfV(chord, next)) return { job: to('V', next.chord), resolves: true }
  if (chord.family === 'half-diminished' && next && upTo(chord, next.chord) === 1)
    return { job: to('V', next.chord), resolves: false }
  const rest = RESTS[key.mode][`${degree}${kindOf(chord)}`]
  return plain(rest ?? 'borrowed', degree, key.mode)
}

const dominantAfter = (form: Form, hold: Hold): Hold | null => {
  const next = canBeII(hold.chord) ? goalOf(form, hold) : null
  if (!next || !isDominant(next.chord)) return null
  const up = upTo(hold.chord, next.chord)
  const isSeventh = hold.chord.quality.recipe.seventh !== null
  return up === 5 || (up === 11 && isSeventh) ? next : null
}

/** What a chord does in its key and between its neighbours, before chains of them are looked at. */
export const functionAt = (form: Form, hold: Hold, keys: readonly PlainKey[]): Judged => {
  const key = keys[hold.at] as PlainKey
  if (isDominant(hold.chord)) return dominantAt(form, hold, key)
  if (hold.chord.family === 'diminished') return { job: diminishedAt(form, hold), resolves: false }
  const dominant = dominantAfter(form, hold)
  if (dominant) {
    const judged = dominantAt(form, dominant, keys[dominant.at] as PlainKey)
    const isOwn = upTo(hold.chord, dominant.chord) === 5 || judged.job.kind === 'substitute V'
    if (isOwn) return { job: iiJob(hold.chord, judged, dominant.chord), resolves: false }
  }
  return restAt(form, hold, key)
}

/** The ii–V pairs of a form, by the place of the ii. */
export const pairsOfII = (form: Form): readonly (readonly [ii: Hold, v: Hold])[] =>
  form.holds.flatMap((v) => {
    const ii = isDominant(v.chord) ? iiBefore(form, v) : null
    return ii && ii.at < v.at ? [[ii, v] as const] : []
  })
