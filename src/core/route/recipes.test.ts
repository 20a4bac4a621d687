import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readChart } from '../chart/read-chart.ts'
import { rotate } from '../pitch/pcset.ts'
import { DEFAULT_SCHOOL } from '../reading/school.ts'
import { chartOfWords, planned } from '../testing/routes.ts'
import { rulesOver } from './options.ts'
import { RECIPE_NAMES, type RecipeName, recipesIn } from './recipes.ts'
import { PLAIN_REQUEST, readRequest, withPlaces } from './request.ts'
import { slotsOf } from './slots.ts'

const recipesFor = (text: string, other: string | null = null, shift = 0) => {
  const said = chartOfWords(text)
  const read = other === null ? null : readChart(other)
  return recipesIn({ ...said, school: DEFAULT_SCHOOL, other: read?.ok ? { chart: read.value, shift } : null })
}
const placesOf = (text: string, name: RecipeName) => recipesFor(text).find((r) => r.name === name)?.places ?? []
/** `bar.beat overlay` of each part. */
const partsOf = (text: string, name: RecipeName) =>
  placesOf(text, name).map((p) => p.parts.map((part) => `${part.bar}.${part.beat} ${part.overlay?.name}`))

const CADENCE = '| Gm7 | C7 | Fmaj7 | % |'

/** What a teacher would write down for each recipe, worked out by hand. */
const BY_HAND: readonly (readonly [RecipeName, string, readonly (readonly string[])[]])[] = [
  [
    'minor pentatonics rising',
    CADENCE,
    [['1.1 D minor pentatonic', '2.1 Eb minor pentatonic', '3.1 E minor pentatonic', '4.1 E minor pentatonic']],
  ],
  [
    'minor pentatonics rising',
    '| Am7b5 | D7b9 | Gmaj7 | C6 |',
    [['2.1 F minor pentatonic', '3.1 F# minor pentatonic']],
  ],
  ["the partner's pentatonic, then down", CADENCE, [['2.1 F# major pentatonic', '3.1 F major pentatonic']]],
  ["the partner's pentatonic, then down", '| Gm7 | C13 | Fmaj7 | % |', []],
  ['diminished on the b9', CADENCE, [['2.1 C# dim7 arpeggio']]],
  ['diminished on the b9', '| Bm7b5 | E7 | Am6 | % |', [['2.1 F dim7 arpeggio']]],
  ['half-whole over ii and V', CADENCE, [['1.1 C half-whole', '2.1 C half-whole']]],
  ['half-whole over ii and V', '| Gm7 | C7alt | Fmaj7 | % |', []],
  ['chromatic neighbour before', '| C7 | Fmaj7 |', [['1.3 F#maj7 arpeggio']]],
  ['descending ii-Vs', CADENCE, [['1.1 Abm7 arpeggio', '1.3 Db7 arpeggio', '2.1 Gm7 arpeggio', '2.3 C7 arpeggio']]],
  ['triads a third apart', '| Ebmaj7 | % | Fm7 | Bb7 |', [['1.1 Eb', '1.3 G', '2.1 B', '2.3 Eb']]],
  ['side-slip up', '| Dm7 | % | % | % |', [['1.1 D dorian', '2.1 D dorian', '3.1 Eb dorian', '4.1 D dorian']]],
  ['side-slip down', '| Dm7 | % | % | % |', [['1.1 D dorian', '2.1 D dorian', '3.1 C# dorian', '4.1 D dorian']]],
  ['side-slip up', CADENCE, [['3.1 F ionian', '4.1 F# ionian', '4.3 F ionian']]],
  [
    'four bars out, four in',
    '| Dm7 | % | % | % | Em7 | % | % | % |',
    [Array.from({ length: 8 }, (_, i) => `${i + 1}.1 undefined`)],
  ],
]

describe('recipes', () => {
  it.each(BY_HAND)('%s over %s', (name, text, parts) => {
    expect(partsOf(text, name)).toEqual(parts)
  })

  it('the rising half steps are found in every ii-V of the 32-bar form that resolves to major', () => {
    const text = readFileSync('demo/charts/1-pier-eleven.txt', 'utf8')
    const { analysis } = chartOfWords(text)
    const toMajor = analysis.chains.filter((c) => c.kind === 'ii-V-I' && c.to.chord.family === 'major')
    const places = placesOf(text, 'minor pentatonics rising')
    expect(toMajor.length).toBeGreaterThanOrEqual(6)
    expect(places).toHaveLength(toMajor.length)
    for (const place of places) {
      const sets = [...new Set(place.parts.map((p) => p.overlay?.set))]
      for (const [i, set] of sets.slice(1).entries()) expect(set).toBe(rotate(sets[i] ?? (0 as never), 1))
    }
  })

  it('are not offered where they do not apply', () => {
    const found = (text: string) => recipesFor(text).map((r) => r.name)
    expect(found('| Dm7 |')).toEqual([])
    expect(found('| N.C. | N.C. |')).toEqual([])
    expect(found('| G7 | % | C7 | % |')).not.toContain('minor pentatonics rising')
    expect(found(CADENCE)).not.toContain("another chart's changes")
    expect(found(CADENCE)).not.toContain('four bars out, four in')
  })

  it('lay another chart over all of this one, moved as asked', () => {
    const [recipe] = recipesFor('| Dm7 | G7 |', '| Am7 | D7 |', 1).filter((r) => r.name === "another chart's changes")
    expect(recipe?.places[0]?.parts.map((p) => p.overlay?.name)).toEqual(['Bbm7 arpeggio', 'Eb7 arpeggio'])
  })

  it('each have a reason, and a place says its own', () => {
    const all = [
      '1-pier-eleven',
      '2-low-water',
      '3-anchor-light',
      '4-gangway-waltz',
      '5-engine-room-samba',
      '6-seven-knots',
    ]
    const seen = new Set<string>()
    for (const name of all)
      for (const r of recipesFor(readFileSync(`demo/charts/${name}.txt`, 'utf8'), '| Am7 | D7 |')) {
        seen.add(r.name)
        for (const p of r.places) expect(p.because).toMatch(/, so .*\.$/)
      }
    expect([...seen].sort()).toEqual([...RECIPE_NAMES].sort())
  })

  it('become locks that a plan keeps, with the chord cut where it must be; the player’s own lock stays', () => {
    const places = placesOf(CADENCE, 'descending ii-Vs')
    const request = withPlaces(PLAIN_REQUEST, places)
    const read = readRequest(request, 'as minor')
    if (!read.ok) throw new Error(read.error.path)
    const { analysis } = chartOfWords(CADENCE)
    const slots = slotsOf(analysis, [], DEFAULT_SCHOOL, read.value.slots)
    expect(slots).toHaveLength(6)
    const [route] = planned(slots, rulesOver(slots, read.value), 1)
    expect(route?.steps.slice(0, 4).map((s) => s.overlay.name)).toEqual([
      'Abm7 arpeggio',
      'Db7 arpeggio',
      'Gm7 arpeggio',
      'C7 arpeggio',
    ])
    const own = { ...PLAIN_REQUEST, locks: [{ bar: 1, beat: 1, overlay: 'Bb lydian' }] }
    expect(withPlaces(own, places)).toEqual(own)
  })
})
