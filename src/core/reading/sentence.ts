import type { Exit } from './exits.ts'
import type { NoteReading, Reading } from './read.ts'

const EXIT_VERB: Readonly<Record<Exit['how'], string>> = {
  held: 'is held as',
  'half step down': 'falls a half step to',
  'half step up': 'rises a half step to',
  'whole step down': 'falls a whole step to',
  'whole step up': 'rises a whole step to',
}

const whatItIs = (n: NoteReading, chord: string): string => {
  const heardAs =
    n.heard === n.note
      ? `is the ${n.degree} over ${chord}`
      : `is heard as ${n.heard.name}, the ${n.degree} over ${chord}`
  if (n.role === 'chord') return n.guide ? `${heardAs}, a guide tone` : `${heardAs}, a chord tone`
  if (n.blue) return `${heardAs}: a blue note, at home in a blues`
  if (n.rubs) return `${heardAs}: it rubs against ${n.rubs.name}`
  if (n.denied) return `${heardAs}: the symbol denies it`
  if (n.role === 'suspension') return `${heardAs}: it may pass, not rest`
  if (n.role === 'outside') return `${heardAs}: outside`
  const tension = n.role === 'altered' ? 'an altered tension' : 'an extension'
  return `${heardAs}, ${tension}${n.keptBack ? ' kept back for the V' : ''}`
}

const leaves = (n: NoteReading, next: string): string => {
  const best = n.exits[0]
  return best ? `${EXIT_VERB[best.how]} ${best.to.name}, the ${best.degree} of ${next}` : `has no step into ${next}`
}

/** One note in a sentence, ASCII: `D is the 7 over Eb7: it rubs against Db, and rises a half step to Eb, the 5 of Abmaj7.` */
export const noteSentence = (n: NoteReading, reading: Reading): string => {
  const { chord, next } = reading.place
  const head = `${n.note.name} ${whatItIs(n, chord.symbol)}`
  return next === null ? `${head}.` : `${head}, and ${leaves(n, next.symbol)}.`
}

/** Names in words: `F, G and B`. */
export const listed = (names: readonly string[], joint: 'and' | 'or' = 'and'): string =>
  names.length < 2 ? (names[0] ?? '') : `${names.slice(0, -1).join(', ')} ${joint} ${names.at(-1)}`

/** How the whole leaves: who has a half step, who has nothing. */
export const landingSentence = (reading: Reading): string | null => {
  const { next } = reading.place
  if (next === null) return null
  if (reading.noExit.length > 0)
    return `${listed(reading.noExit.map((n) => n.note.name))} ${reading.noExit.length > 1 ? 'have' : 'has'} no step into ${next.symbol}.`
  const half = reading.notes.filter((n) => n.exits[0]?.how.startsWith('half'))
  if (half.length === reading.notes.length) return `All ${half.length} notes leave by a half step.`
  if (half.length === 0) return 'No note leaves by a half step.'
  return `${listed(half.map((n) => n.note.name))} ${half.length > 1 ? 'leave' : 'leaves'} by a half step.`
}

/** Whether the overlay says the chord or leaves it vague. */
export const statesSentence = (reading: Reading): string => {
  const guides = reading.notes.filter((n) => n.guide).map((n) => n.heard.name)
  if (reading.statesChord) return `It states the chord: it holds ${listed(guides)}.`
  return guides.length > 0 ? `Vague: it holds one guide tone, ${listed(guides)}.` : 'Vague: it holds no guide tone.'
}

/** The whole reading in one sentence, ASCII. */
export const readingSentence = (reading: Reading): string => {
  const { overlay, place, fade, landing, worst } = reading
  const far = `${overlay.name} over ${place.chord.symbol} has a fade of ${fade}`
  const most =
    worst.fade > 0
      ? `, its ${worst.note.name} (the ${worst.degree}) furthest out at ${worst.fade}`
      : ', all chord tones'
  return landing === null || place.next === null
    ? `${far}${most}.`
    : `${far}${most}; it lands at ${landing} on ${place.next.symbol}.`
}
