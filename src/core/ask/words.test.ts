import { describe, expect, it } from 'vitest'
import { MATERIALS, nameOn } from '../material/material.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { printQuestion, readQuestion } from './question.ts'

const understood = (text: string): string => {
  const read = readQuestion(text, DEFAULT_SCHOOL)
  return read.ok ? printQuestion(read.value) : `not understood: ${read.error.questions?.join('; ')}`
}

const meantBy = (text: string): readonly string[] => {
  const read = readQuestion(text, DEFAULT_SCHOOL)
  return read.ok ? [] : (read.error.questions ?? [])
}

/** [as a player types it, the same in plain words], by hand. */
const WORDS = {
  'a material without a root takes the chord’s': [
    ['altered over Bb7', 'Bb altered over Bb7'],
    ['lydian over Dbmaj7', 'Db lydian over Dbmaj7'],
    ['diminished over E7', 'E half-whole over E7'],
    ['diminished over G#dim7', 'G# whole-half over G#dim7'],
    ['whole tone over A7', 'A whole tone over A7'],
    ['blues scale over F7', 'F minor blues over F7'],
    ['dorian over F#m7 to B7', 'F# dorian over F#m7 to B7'],
    ['pentatonic over Ebm7', 'Eb minor pentatonic over Ebm7'],
    ['bebop over D7', 'D bebop dominant over D7'],
    ['arpeggio over Abmaj7', 'Abmaj7 arpeggio over Abmaj7'],
    ['HW over C#7', 'C# half-whole over C#7'],
    ['alt over F7 to Bbm6', 'F altered over F7 to Bbm6'],
  ],
  'a root by degree or by step': [
    ['m7b5 arp from the 3rd over A7', 'C#m7b5 arpeggio over A7'],
    ['minor pentatonic from the 5th over Ebmaj7', 'Bb minor pentatonic over Ebmaj7'],
    ['minor pentatonic on the b3 over D7', 'F minor pentatonic over D7'],
    ['melodic minor a half step up over B7alt', 'C melodic minor over B7alt'],
    ['triad on the 9 over Ab7', 'Bb over Ab7'],
    ['major triad off the b5 over E7', 'Bb over E7'],
    ['from the 7th maj7 arpeggio over Cmaj7', 'Bmaj7 arpeggio over Cmaj7'],
    ['major pentatonic a tritone away over F#7 to Bmaj7', 'C major pentatonic over F#7 to Bmaj7'],
    ['minor pentatonic up a whole step over Gm7', 'A minor pentatonic over Gm7'],
    ['a half step below minor pentatonic over Am7', 'Ab minor pentatonic over Am7'],
    ['dim7 arpeggio from the flat ninth over C7', 'C# dim7 arpeggio over C7'],
    ['minor 6 pent on the 5th of Bb7', 'F minor 6 pentatonic over Bb7'],
    ['arpeggio from the third over Fmaj7', 'Am7 arpeggio over Fmaj7'],
  ],
  'a root by its job': [
    ['tritone sub triad over A7 to Dmaj7', 'Eb over A7 to Dmaj7'],
    ['tritone sub pentatonic over E7', 'Bb major pentatonic over E7'],
    ['tritone sub 7 over Ab7', 'D7 arpeggio over Ab7'],
    ['the tritone substitute over C#7', 'G7 arpeggio over C#7'],
    ['upper structure II over F7', 'G over F7'],
    ['upper structure bVI over D7', 'Bb over D7'],
    ['US II over Bb7', 'C over Bb7'],
    ['US bVI over A7', 'F over A7'],
    ['US #IV over Eb7', 'A over Eb7'],
    ['US ii over G7', 'Am over G7'],
    ['the V of Em over F#m7b5', 'B7 arpeggio over F#m7b5'],
    ['altered over the V of Gm', 'D altered over D7 to Gm'],
  ],
  'cells, fourths, slips': [
    ['1235 of Ab over F#7', '1 2 3 5 of Ab'],
    ['1-2-b3-5 of E over A7', '1 2 b3 5 of E'],
    ['1 2 3 5 from the b7 over D7', '1 2 3 5 of C'],
    ['quartal from B over Em7', 'B quartal 3 over Em7'],
    ['fourths from the 9 over Bbm7', 'C quartal 3 over Bbm7'],
    ['side slip over Cm7', 'C# dorian over Cm7'],
    ['side-slip down over Fm7', 'E dorian over Fm7'],
    ['half step up over Bm7', 'C dorian over Bm7'],
    ['side slip half step down over Gm7', 'F# dorian over Gm7'],
    ['slip down a whole step over Am7', 'G dorian over Am7'],
  ],
  'names as they are said': [
    ['Eb mel min over Ebm6', 'Eb melodic minor over Ebm6'],
    ['F jazz minor over Fm6', 'F melodic minor over Fm6'],
    ['G MM over F#7alt', 'G melodic minor over F#7alt'],
    ['D lydian aug over Dmaj7#5', 'D lydian augmented over Dmaj7#5'],
    ['A HW over A7', 'A half-whole over A7'],
    ['C WH', 'C whole-half'],
    ['Bb dim scale', 'Bb whole-half'],
    ['E aug scale', 'E augmented scale'],
    ['F# in-sen over F#m7', 'F# insen over F#m7'],
    ['messiaen mode 3 over D7', 'D third limited mode over D7'],
    ['B super locrian over B7', 'B altered over B7'],
    ['5th mode of harmonic minor over C7', 'C phrygian dominant over C7'],
    ['5th mode of Bb harmonic minor over F7', 'F phrygian dominant over F7'],
    ['Ab double harmonic', 'Ab double harmonic'],
    ['E hungarian minor over Em6', 'E hungarian minor over Em6'],
    ['D neapolitan minor', 'D neapolitan minor'],
    ['C neapolitan major', 'C neapolitan major'],
    ['A phrygian major over A7', 'A phrygian dominant over A7'],
    ['C13 arpeggio over Gm7', 'C13 arpeggio over Gm7'],
    ['Bb9 arpeggio over Dm7b5', 'Bb9 arpeggio over Dm7b5'],
    ['E7alt arpeggio over E7', 'E7alt arpeggio over E7'],
  ],
  'other words for over and to': [
    ['B minor pentatonic on Eb7', 'B minor pentatonic over Eb7'],
    ['C against Bb7', 'C over Bb7'],
    ['F# in front of C7', 'F# over C7'],
    ['G over F7 -> Bbmaj7', 'G over F7 to Bbmaj7'],
    ['G over F7 → Bbmaj7', 'G over F7 to Bbmaj7'],
    ['Db over G7 resolving to Cmaj7', 'Db over G7 to Cmaj7'],
    ['Db over G7 going to Cmaj7', 'Db over G7 to Cmaj7'],
    ['Db over G7 into Cmaj7', 'Db over G7 to Cmaj7'],
    ['Ab & Bb triads over Fm7', 'Ab & Bb over Fm7'],
    ['D E triad pair over D7', 'D & E over D7'],
    ['D and E over D7', 'D & E over D7'],
    ['C# minor 7 chord', 'C#m7'],
  ],
  'questions for lists': [
    ['triad pairs over Ab7', 'pairs over Ab7'],
    ['what can I play over Ebm7?', 'what can I play over Ebm7'],
    ['what works over A7alt', 'what can I play over A7alt'],
    ['which triads hold 9 #11 over F7', 'which triads hold 9 #11 over F7'],
    ['which pentatonics over Bm7', 'which pentatonics over Bm7'],
    ['what triads contain 13 and b9 over D7', 'which triads hold 13 b9 over D7'],
    ['best pentatonics on Bbmaj7#11', 'which pentatonics over Bbmaj7(#11)'],
    ['what scale goes with Dbm7', 'which scales over Dbm7'],
    ['upper structures over E7alt', 'which triads over E7alt'],
    ['triads with 9 over Am7', 'which triads hold 9 over Am7'],
    ['how far out is E major pentatonic on a Bb7?', 'E major pentatonic over Bb7'],
    ['what scale goes with a Db7 sharp nine into G flat major seven', 'which scales over Db7(#9) to Gbmaj7'],
    ['altered over E flat seven flat nine', 'Eb altered over Eb7(b9)'],
    ["what's F#m7b5", 'F#m7b5'],
    ['what are the notes of Ab altered', 'Ab altered'],
    ['name F A C# E', 'F A C# E'],
    ['the tritone sub of A7', 'Eb7'],
    ['side step up a half over Cm7', 'C# dorian over Cm7'],
  ],
  'chords in a row': [
    ['Fm7 Bb7 Ebmaj7', '| Fm7 | Bb7 | Ebmaj7 |'],
    ['A7 | D7', '| A7 | D7 |'],
    ['Am7, D7, Gmaj7', '| Am7 | D7 | Gmaj7 |'],
    ['ii V I in Eb', 'key = Eb\n| Fm7 | Bb7 | Ebmaj7 |'],
    ['iii VI ii V in F', 'key = F\n| Am7 | D7 | Gm7 | C7 |'],
    ['a minor two five one in F sharp', 'key = F# minor\n| G#m7b5 | C#7 | F#m6 |'],
    ['one six two five in Db', 'key = Db\n| Dbmaj7 | Bbm7 | Ebm7 | Ab7 |'],
    ['2 5 1 in A', 'key = A\n| Bm7 | E7 | Amaj7 |'],
    ['ii V i in F# minor', 'key = F# minor\n| G#m7b5 | C#7 | F#m6 |'],
    ['I bIII7 bVImaj7 bII7 in G', 'key = G\n| Gmaj7 | Bb7 | Ebmaj7 | Ab7 |'],
  ],
} as const

describe.each(Object.entries(WORDS))('%s', (_, rows) => {
  it.each(rows as readonly (readonly [string, string])[])('%s', (typed, plain) => {
    const got = understood(typed)
    if (/^[b#0-9 ]+ of [A-G]/.test(plain)) {
      const notes = understood(`${plain} over C7`)
      expect(got.split(' over ')[0]).toBe(notes.split(' over ')[0])
    } else expect(got).toBe(plain)
  })
})

describe('what stays unclear', () => {
  it.each([
    ['E minr pentatonic over A7', 'E minor pentatonic over A7'],
    ['altred over G7', 'altered over G7'],
    ['dorain over Am7 to D7', 'dorian over Am7 to D7'],
    ['Ab lydain over Abmaj7', 'Ab lydian over Abmaj7'],
    ['Cmaj77', 'Cmaj7'],
    ['F#m7bb', 'F#m7'],
    ['half-hole over E7', 'half-whole over E7'],
    ['melodic mnor over Gm6', 'melodic minor over Gm6'],
    ['harbour lights over Bb7', 'what can I play over Bb7'],
    ['wohle tone over C7', 'whole tone over C7'],
    ['D phrigian dominant over D7', 'D phrygian dominant over D7'],
    ['penatonic over Dm7', 'pentatonic over Dm7'],
  ])('“%s” is not guessed, and “%s” is among what is offered', (typed, offered) => {
    expect(meantBy(typed)).toContain(offered)
  })
  it('is only ever answered by questions that are understood', () => {
    for (const typed of ['Eb minr pent over A7', 'altred over G7', 'x over C7', 'D7 whle tone', 'Gmaj99', 'lydiam'])
      for (const q of meantBy(typed)) expect(readQuestion(q, DEFAULT_SCHOOL).ok, q).toBe(true)
  })
})

describe('every name that is proposed while one types', () => {
  it('is understood, rooted and (over a chord) without a root', () => {
    for (const m of MATERIALS)
      for (const words of [nameOn('Eb', m), ...m.otherNames.filter((n) => /^[a-z]/.test(n)).map((n) => `Eb ${n}`)]) {
        expect(readQuestion(`${words} over G7 to Cmaj7`, DEFAULT_SCHOOL).ok, words).toBe(true)
        const rootless = words.slice(2).trim()
        if (rootless !== '') expect(readQuestion(`${rootless} over G7`, DEFAULT_SCHOOL).ok, rootless).toBe(true)
      }
  })
})
