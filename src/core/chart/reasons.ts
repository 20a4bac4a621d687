import type { Chord } from '../chord/chord.ts'
import { plainNote } from '../pitch/note.ts'
import { pitchClass } from '../pitch/units.ts'
import { degreeIn, type Judged } from './dominants.ts'
import { type Form, goalOf, type Hold, iiBefore, onFrom, upTo } from './holds.ts'
import { kindOf, type PlainKey } from './keys.ts'

const ORIGINS: readonly (readonly [degree: number, kinds: readonly string[], mode: PlainKey['mode'], name: string])[] =
  [
    [5, ['m', 'm7'], 'minor', 'iv'],
    [2, ['m7'], 'major', 'ii'],
    [5, ['M'], 'major', 'IV'],
    [2, ['ø'], 'minor', 'ii'],
    [0, ['M'], 'major', 'I'],
  ]

/** Where a borrowed chord is at home, the nearest key first: as its ii, its IV or its iv. */
const originOf = (chord: Chord, key: PlainKey): string => {
  const found = ORIGINS.filter(([, kinds]) => kinds.includes(kindOf(chord))).map(([degree, , mode, name]) => {
    const tonic = pitchClass(chord.root.pc - degree)
    const fifths =
      ((((tonic + (mode === 'minor' ? 3 : 0) - key.tonic - (key.mode === 'minor' ? 3 : 0)) * 7) % 12) + 12) % 12
    return {
      words: `the ${name} of ${plainNote(tonic, mode === 'minor').name} ${mode}`,
      away: Math.min(fifths, 12 - fifths),
    }
  })
  return found.sort((a, b) => a.away - b.away)[0]?.words ?? 'another key'
}

const slipsBetween = (form: Form, hold: Hold): boolean => {
  const [before, next] = [onFrom(form, hold, -1), onFrom(form, hold, 1)]
  if (!before || !next || kindOf(before.chord) !== kindOf(hold.chord) || kindOf(next.chord) !== kindOf(hold.chord))
    return false
  const [a, b] = [upTo(before.chord, hold.chord), upTo(hold.chord, next.chord)]
  return (a === 11 && b === 11) || (a === 1 && b === 1)
}

const dominantReason = (form: Form, hold: Hold, { job, resolves, through }: Judged): string | null => {
  const next = goalOf(form, hold)?.chord
  const ii = iiBefore(form, hold)?.chord
  switch (job.kind) {
    case 'V':
      if (through) return `It goes to ${job.of} a fifth down, with ${through.symbol} put in between as that chord's ii.`
      return resolves ? `${next?.symbol ?? job.of} stands a fifth below it.` : `It leans on ${job.of}.`
    case 'substitute V':
      if (through)
        return `It slips to ${job.of} a semitone down, with ${through.symbol} put in between as that chord's ii.`
      return `It goes a semitone down to ${next?.symbol ?? job.of}: the tritone partner of its V.`
    case 'deceptive V':
      return `It is the V of ${job.of}, and ${next?.symbol ?? 'another chord'} comes in its place.`
    case 'backdoor V':
      return `A whole step below ${job.of}, it comes home by the back door.`
    case 'chromatic V':
      return 'The same ii–V follows a semitone lower.'
    case 'delayed V':
      return `It turns into ${next?.symbol ?? 'the minor chord'} on its own root, which puts ${job.of} off.`
    case 'blues I':
      return 'It is the I of a blues: at rest, with its seventh.'
    case 'blues IV':
      return 'It is the IV of a blues.'
    case 'blues V':
      return 'It is the V of a blues.'
    case 'static dominant':
      if (ii && next?.symbol === ii.symbol) return `It swings back to ${ii.symbol}: one suspended sound.`
      if (ii && next) return `${ii.symbol} before it is its ii, but what that promises never comes.`
      return next
        ? `${next.symbol} is neither a fifth nor a semitone below it: it does not resolve.`
        : 'Nothing follows it.'
    default:
      return null
  }
}

/** One sentence why a chord has its job (ASCII names). */
export const reasonFor = (form: Form, hold: Hold, judged: Judged, key: PlainKey, keyName: string): string => {
  const { job } = judged
  const next = goalOf(form, hold)?.chord
  const degree = degreeIn(key, hold.chord)
  const dominant = dominantReason(form, hold, judged)
  if (dominant) return dominant
  switch (job.kind) {
    case 'ii':
      return `${next?.symbol ?? 'the dominant'} after it is the dominant on the way to ${job.of}.`
    case 'ii of substitute V':
      return `${next?.symbol ?? 'the dominant'} after it stands for the V of ${job.of}, and this is its own ii.`
    case 'chromatic ii':
      return 'The same ii–V follows a semitone lower.'
    case 'vii':
      return `Its root lies a semitone below ${job.of}, and leads up to it.`
    case 'passing diminished':
      return `Its ${next && [1, 11].includes(upTo(hold.chord, next)) ? 'root' : 'bass'} moves on by a semitone to ${next?.symbol ?? job.of}.`
    case 'auxiliary diminished':
      return next ? `It ornaments ${next.symbol} and gives way to it.` : 'Nothing follows it.'
    case 'common-tone diminished':
      return `It holds the root of ${next?.symbol ?? 'what follows'}.`
    case 'modal':
      return `No dominant leads here: it rests on ${keyName.replace(/ (major|minor)$/, '')}.`
    case 'borrowed':
      if (slipsBetween(form, hold)) return 'It slides by a semitone between its neighbours.'
      return `In ${keyName} it is foreign: ${originOf(hold.chord, key)}.`
    default:
      return `It is on the ${degree} of ${keyName}.`
  }
}
