import { type Chord, degreeOver, type Filter, listed, pitchClass, toGlyphs } from '../../../core/index.ts'
import { FAMILY_WORDS } from '../../figures/words.ts'
import { type Filters, NO_FILTERS } from '../../state/address/filters.ts'

const degreesIn = (ups: readonly number[], chord: Chord): readonly string[] =>
  ups.map((up) => toGlyphs(degreeOver(chord, pitchClass(chord.root.pc + up))))

/** What is wanted, in a few words; empty where nothing is. */
export const filterWords = (f: Filters, chord: Chord): string =>
  [
    ...(f.hold.length > 0 ? [`holds ${listed(degreesIn(f.hold, chord))}`] : []),
    ...(f.avoid.length > 0 ? [`no ${listed(degreesIn(f.avoid, chord), 'or')}`] : []),
    ...(f.families ? [listed(f.families.map((x) => FAMILY_WORDS[x]))] : []),
    ...(f.fadeMin > 0 ? [`fade from ${f.fadeMin}`] : []),
    ...(f.fadeMax < 100 ? [`fade to ${f.fadeMax}`] : []),
    ...(f.landingMin > 0 ? [`lands at ${f.landingMin} or better`] : []),
    ...(f.keyMax !== null ? [`key distance to ${f.keyMax}`] : []),
    ...(f.states === 'chord' ? ['states the chord'] : f.states === 'vague' ? ['stays vague'] : []),
    ...(f.text !== '' ? [`“${f.text}”`] : []),
  ].join(', ')

/** One filter by itself, in words. */
export const oneFilter = (filter: Filter, f: Filters, chord: Chord): string => {
  const only: Filters =
    filter.kind === 'hold' || filter.kind === 'avoid'
      ? { ...NO_FILTERS, [filter.kind]: [filter.up] }
      : { ...NO_FILTERS, [filter.kind]: f[filter.kind] }
  const words = filterWords(only, chord)
  return words === '' && filter.kind === 'fadeMax' ? 'fade to 60, because the order is by landing' : words
}

const without = (f: Filters, d: Filter): Filters => {
  if (d.kind === 'hold' || d.kind === 'avoid') return { ...f, [d.kind]: f[d.kind].filter((up) => up !== d.up) }
  if (d.kind === 'fadeMax' && f.fadeMax === NO_FILTERS.fadeMax) return { ...f, sort: 'use' }
  return { ...f, [d.kind]: NO_FILTERS[d.kind] }
}

/** The filters without some of them. */
export const withoutFilters = (f: Filters, drop: readonly Filter[]): Filters => drop.reduce(without, f)
