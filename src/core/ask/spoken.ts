import type { Chord } from '../chord/chord.ts'
import { readChord } from '../chord/parse.ts'
import { MATERIALS, type Material, materialNamed } from '../material/material.ts'
import { namesOf } from '../material/naming.ts'
import { generatedRoot, notesOverlay, type Overlay, pairOf, placeOn, slipOverlay } from '../material/overlay.ts'
import { materialCalled, readOverlay } from '../material/read-overlay.ts'
import { degree, isDegree, spell } from '../pitch/degree.ts'
import { toAscii } from '../pitch/glyphs.ts'
import { type Note, noteAbove, readNote } from '../pitch/note.ts'
import { rotate } from '../pitch/pcset.ts'
import { homeOverlay } from '../reading/home.ts'
import type { Place } from '../reading/role.ts'
import { capital, noteUp, relativeRootIn, stepIn } from './roots.ts'

const FILLER = /^(?:play|use|try|lay|put|an?|the|some|my|its)\s+/i
const squeezed = (words: string): string => {
  let rest = toAscii(words).trim().replace(/\s+/g, ' ')
  while (FILLER.test(rest)) rest = rest.replace(FILLER, '')
  return rest
}

/** What plain words call on any root: `MM`, `blues scale`, `m7b5 arp`. */
const calledOn = (root: Note, words: string): Overlay | null => {
  const material = materialCalled(root, words) ?? modeCalled(words)
  return material ? placeOn(root, material) : null
}

const NTH_MODE = /^(?:the\s+)?([1-7])(?:st|nd|rd|th)?\s+mode\s+of\s+(?:the\s+)?(.+)$/i

/** `5th mode of harmonic minor`: the mode itself, by its own name. */
const modeCalled = (words: string): Material | undefined => {
  const [, number = '', of = ''] = NTH_MODE.exec(words) ?? []
  const scale = number ? materialCalled(C, of) : undefined
  const from = scale?.formula[Number(number) - 1]
  if (!scale || !from) return undefined
  const set = rotate(scale.set, -from.semitones)
  return MATERIALS.find((m) => m.family === 'mode' && m.set === set)
}
const C = ((): Note => {
  const read = readNote('C', 0)
  if (!read.ok) throw new Error('C is a note')
  return read.value.note
})()

/** `5th mode of C harmonic minor`: on the note where that mode begins; `G 5th mode of harmonic minor`: on the G. */
const rootedMode = (words: string): Overlay | null => {
  const [, own = '', rest = ''] =
    /^([A-G](?:bb|##|[b#])?)\s+((?:the\s+)?[1-7](?:st|nd|rd|th)?\s+mode\s.+)$/.exec(words) ?? []
  const on = own ? readNote(own, 0) : null
  const called = on?.ok ? modeCalled(rest) : undefined
  if (on?.ok && called) return placeOn(on.value.note, called)
  const [, number = '', of = ''] = NTH_MODE.exec(words) ?? []
  const read = number ? readOverlay(of) : null
  const mode = read?.ok && read.value.material ? modeCalled(`${number} mode of ${read.value.material.name}`) : undefined
  const root = read?.ok ? read.value.notes[Number(number) - 1] : undefined
  return mode && root ? placeOn(root, mode) : null
}

/** Words that mean one thing over one kind of chord and another over another. */
const byChord = (words: string, chord: Chord): Material | undefined => {
  const minor = chord.family === 'minor' || chord.family === 'half-diminished'
  const said = words.toLowerCase().replace(/ (scale|mode)$/, '')
  if (/^(diminished|dim|octatonic)$/.test(said))
    return materialNamed(chord.family === 'dominant' ? 'half-whole' : 'whole-half')
  if (/^(pentatonic|pent)$/.test(said)) return materialNamed(minor ? 'minor pentatonic' : 'major pentatonic')
  if (/^(augmented|aug)$/.test(said) && chord.family !== 'augmented') return materialNamed('augmented scale')
  if (/^bebop$/.test(said))
    return materialNamed(minor ? 'bebop dorian' : chord.family === 'major' ? 'bebop major' : 'bebop dominant')
  if (/^(triad)$/.test(said)) return materialNamed(minor ? 'm' : '')
  return undefined
}

const ownArpeggio = (words: string, chord: Chord): Overlay | null => {
  if (!/^(arpeggio|arp|chord tones|the chord)$/i.test(words)) return null
  return calledOn(chord.root, `${chord.symbol.slice(chord.root.name.length)} arpeggio`)
}

const CELL = /^((?:[b#]?\d{1,2})(?:[\s-]+[b#]?\d{1,2})+|\d{3,5})\s*(?:cell|pattern)?\s*(.*)$/i

/** `1235 of Gb`, `1-2-b3-5 from the 3rd`: a cell of degrees above its own root. */
const cellOf = (words: string, chord: Chord | null): Overlay | null => {
  const [, said = '', where = ''] = CELL.exec(words) ?? []
  if (!said) return null
  const names = /^\d{3,5}$/.test(said) ? [...said] : said.split(/[\s-]+/)
  if (!names.every(isDegree)) return null
  const root = cellRoot(where.trim(), chord)
  if (!root) return null
  const [first, ...rest] = names.map((n) => spell(root, degree(n)))
  return first ? notesOverlay([first, ...rest]) : null
}

const cellRoot = (where: string, chord: Chord | null): Note | null => {
  const named = /^(?:of|from|on|off|in)\s+([A-Ga-g](?:bb|##|[b#])?)$/.exec(where)
  if (named?.[1]) {
    const read = readNote(capital(named[1]), 0)
    return read.ok ? read.value.note : null
  }
  if (!chord) return null
  if (where === '') return chord.root
  const relative = relativeRootIn(where, chord)
  return relative && relative.rest === '' ? noteUp(chord, relative.up, relative.letters) : null
}

/** A root after its material: `quartal from E`, `minor pentatonic on Bb`. */
const ROOT_AFTER = /^(.+?)\s+(?:from|on|of|off|in|starting on|built on)\s+([A-Ga-g](?:bb|##|[b#])?)$/

const rootedAfter = (words: string): Overlay | null => {
  const [, material = '', root = ''] = ROOT_AFTER.exec(words) ?? []
  const read = root ? readNote(capital(root), 0) : null
  return read?.ok ? calledOn(read.value.note, material) : null
}

const DEGREES = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII']
const UPPER_STRUCTURE =
  /^(?:upper\s+structure|u\.?s\.?)\s+(?:triad\s+)?([b#]?)(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)(?:\s+triad)?$/i

/** `upper structure bVI`, `US II`: a triad on a degree, minor where the numeral is small. */
const upperStructure = (words: string, chord: Chord): Overlay | null => {
  const [, sign = '', numeral = ''] = UPPER_STRUCTURE.exec(words) ?? []
  if (!numeral) return null
  const step = DEGREES.indexOf(numeral.toUpperCase()) + 1
  const d = degree(`${sign.toLowerCase()}${step}`)
  const small = numeral === numeral.toLowerCase()
  return placeOn(noteUp(chord, d.semitones % 12, d.step - 1), materialNamed(small ? 'm' : ''))
}

const TRITONE_SUB = /^(?:the\s+)?(?:tritone|tt)(?:'?s)?\s*(?:substitute|substitution|partner|sub)(?:'?s)?\s*(.*)$/i

/** `tritone sub pentatonic`: laid on the tritone partner, a dominant itself. */
const tritoneSub = (words: string, chord: Chord): Overlay | null => {
  const match = TRITONE_SUB.exec(words)
  if (!match) return null
  const root = noteUp(chord, 6, 4)
  const said = (match[1] ?? '').trim()
  if (said === '' || /^(7|7th|dominant|arpeggio|chord)$/i.test(said)) return placeOn(root, materialNamed('7 arpeggio'))
  if (/^(pentatonic|pent)$/i.test(said)) return placeOn(root, materialNamed('major pentatonic'))
  if (/^triad$/i.test(said)) return placeOn(root, materialNamed(''))
  return calledOn(root, said)
}

const TRITONE_SUB_OF = /^(?:the\s+)?(?:tritone|tt)\s*(?:substitute|substitution|partner|sub)\s+of\s+([A-Ga-g]\S*)$/i

/** `the tritone sub of A7`: the dominant a tritone away. */
export const tritonePartnerOf = (words: string): Chord | null => {
  const [, symbol = ''] = TRITONE_SUB_OF.exec(words) ?? []
  const of = symbol ? readChord(capital(symbol)) : null
  const partner = of?.ok ? readChord(`${noteUp(of.value, 6, 4).name}7`) : null
  return partner?.ok ? partner.value : null
}

const V_OF = /^(?:the\s+)?V7?\s+of\s+([A-Ga-g]\S*)$/

/** `the V of Dm`: the dominant a fifth above a chord, and that chord. */
export const fiveOf = (words: string): { readonly dominant: Chord; readonly goal: Chord } | null => {
  const [, symbol = ''] = V_OF.exec(words.trim()) ?? []
  const goal = symbol ? readChord(capital(symbol)) : null
  const dominant = goal?.ok ? readChord(`${noteAbove(goal.value.root, 4, 7).name}7`) : null
  return goal?.ok && dominant?.ok ? { dominant: dominant.value, goal: goal.value } : null
}

/** A root nobody typed: as the degree that names it is spelled, or as at home, where that reads plainly. */
const plainRoot = (root: Note, named: boolean, material: Material, { home }: Place): Note =>
  generatedRoot(root.pc, named ? [root] : homeOverlay(home.first).notes, material)

/** `arpeggio from the 3rd`: the seventh chord that the home scale has there. */
const stackOn = (root: Note, { home }: Place): Overlay | null => {
  const { notes } = homeOverlay(home.first)
  const at = notes.findIndex((n) => n.pc === root.pc)
  const [first, ...rest] = at < 0 ? [] : [0, 2, 4, 6].flatMap((i) => notes[(at + i) % notes.length] ?? [])
  if (!first) return null
  const stack = notesOverlay([first, ...rest])
  return namesOf(stack.set, stack).find((o) => o.root.pc === root.pc) ?? stack
}

const SLIP = /^(?:side[\s-]?slip|slip|sidestep|side[\s-]step)?$/i

/** `side slip up a half step`, `half step down`: the home scale moved; by itself a slip goes up a half step. */
const spokenSlip = (words: string, place: Place): Overlay | null => {
  const home = homeOverlay(place.home.first)
  const step = stepIn(words)
  const moved = (by: number): Overlay => slipOverlay(home, by, home.notes)
  if (step && SLIP.test(step.rest)) return moved(step.by)
  const [, way] = /^(?:side[\s-]?slip|sidestep|side[\s-]step)(?:\s+(up|down))?$/i.exec(words) ?? []
  if (
    /^(?:side[\s-]?slip|sidestep|side[\s-]step)/i.test(words) &&
    (way || !/\s(?!up|down)/.test(words.replace(/side\s/i, 'side')))
  )
    return moved(way?.toLowerCase() === 'down' ? -1 : 1)
  const signed = /^(?:side[\s-]?slip|slip)\s+([+-]?[1-6])$/i.exec(words)
  return signed ? moved(Number(signed[1])) : null
}

const PAIR_WORDS = /\s*(?:triad\s+pairs?|triads?|pairs?)$/i

/** `Ab & Bb triads`, `Ab and Bb+`, `Ab Bb triad pair`. */
const spokenPair = (words: string): Overlay | null => {
  const plural = PAIR_WORDS.test(words)
  const bare = words.replace(PAIR_WORDS, '')
  const joined = /\s(?:and|with|plus|\+)\s|&|,/i.test(bare)
    ? bare.split(/\s*(?:\s(?:and|with|plus|\+)\s|&|,)\s*/i)
    : plural
      ? bare.split(/\s+/)
      : []
  const [a, b, more] = joined.map((t) => readOverlay(t))
  if (!a?.ok || !b?.ok || more !== undefined) return null
  const areTriads = [a.value, b.value].every((o) => o.material?.family === 'triad')
  return areTriads ? pairOf(a.value, b.value) : null
}

/**
 * What is laid over a chord, in a player's own words: roots by degree or by step, jobs, cells, pairs, a material on the
 * chord's own root. Null where they are not understood: nothing is guessed. Source: the HTTP contract, a player's words.
 */
export const readSpoken = (text: string, place: Place | null): Overlay | null => {
  const asTyped = readOverlay(toAscii(text).trim())
  if (asTyped.ok) return asTyped.value
  const words = squeezed(text)
  if (words === '') return null
  const chord = place?.chord ?? null
  const anywhere = cellOf(words, chord) ?? rootedMode(words) ?? spokenPair(words) ?? rootedAfter(words)
  if (anywhere) return anywhere
  const rooted = readOverlay(words)
  if (rooted.ok) return rooted.value
  const five = fiveOf(words)
  if (five) return calledOn(five.dominant.root, '7 arpeggio')
  if (!place || !chord) return null
  const named = spokenSlip(words, place) ?? upperStructure(words, chord) ?? tritoneSub(words, chord)
  if (named) return named
  const relative = relativeRootIn(words, chord)
  if (relative) {
    const root = noteUp(chord, relative.up, relative.letters)
    const stack = /^(?:7th |seventh )?(?:arpeggio|arp)$/i.test(relative.rest) ? stackOn(root, place) : null
    if (stack) return stack
    const rest = relative.rest.replace(/^(major )?triad$/i, 'major')
    const material = rest === '' ? undefined : (materialCalled(root, rest) ?? modeCalled(rest) ?? byChord(rest, chord))
    if (material) return placeOn(plainRoot(root, relative.letters !== null, material, place), material)
  }
  const own = byChord(words, chord)
  if (own) return placeOn(chord.root, own)
  return ownArpeggio(words, chord) ?? calledOn(chord.root, words)
}
