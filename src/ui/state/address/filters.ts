import {
  ANYTHING,
  type Chord,
  FAMILY_NAMES,
  type FamilyName,
  type OverlayFilter,
  pitchClass,
  SORTS,
  setOf,
} from '../../../core/index.ts'

/** The twelve degrees as an address names them, whatever the chord calls them: by semitones above its root. */
export const UPS = ['1', 'b9', '9', '#9', '3', '11', '#11', '5', 'b13', '13', 'b7', '7'] as const

/** What the player wants of an overlay. Degrees as semitones above the chord's root; families null for all. */
export interface Filters {
  readonly families: readonly FamilyName[] | null
  readonly hold: readonly number[]
  readonly avoid: readonly number[]
  readonly fadeMin: number
  readonly fadeMax: number
  readonly landingMin: number
  readonly keyMax: number | null
  readonly states: OverlayFilter['states']
  readonly text: string
  readonly sort: OverlayFilter['sort']
}

export const NO_FILTERS: Filters = {
  families: null,
  hold: [],
  avoid: [],
  fadeMin: 0,
  fadeMax: 100,
  landingMin: 0,
  keyMax: null,
  states: null,
  text: '',
  sort: 'use',
}

const upsIn = (text: string | null): readonly number[] =>
  (text ?? '').split(',').flatMap((name) => {
    const up = UPS.indexOf(name as (typeof UPS)[number])
    return up < 0 ? [] : [up]
  })

const between = (text: string | null, low: number, high: number): number | null => {
  const n = text === null || text === '' ? Number.NaN : Number(text)
  return Number.isFinite(n) ? Math.max(low, Math.min(high, Math.round(n))) : null
}

/** Filters from an address; what does not read counts as not set. */
export const readFilters = (query: URLSearchParams): Filters => {
  const families = query.get('families')?.split(',')
  const known = FAMILY_NAMES.filter((f) => families?.includes(f))
  const states = query.get('states')
  return {
    families: known.length > 0 ? known : null,
    hold: upsIn(query.get('hold')),
    avoid: upsIn(query.get('avoid')),
    fadeMin: between(query.get('fadeMin'), 0, 100) ?? 0,
    fadeMax: between(query.get('fadeMax'), 0, 100) ?? 100,
    landingMin: between(query.get('landingMin'), 0, 100) ?? 0,
    keyMax: between(query.get('keyMax'), 0, 6),
    states: states === 'chord' || states === 'vague' ? states : null,
    text: query.get('find') ?? '',
    sort: SORTS.find((s) => s === query.get('sort')) ?? 'use',
  }
}

const names = (ups: readonly number[]): string => ups.map((up) => UPS[up]).join(',')

export const writeFilters = (f: Filters, query: URLSearchParams): void => {
  if (f.families) query.set('families', f.families.join(','))
  if (f.hold.length > 0) query.set('hold', names(f.hold))
  if (f.avoid.length > 0) query.set('avoid', names(f.avoid))
  if (f.fadeMin > 0) query.set('fadeMin', String(f.fadeMin))
  if (f.fadeMax < 100) query.set('fadeMax', String(f.fadeMax))
  if (f.landingMin > 0) query.set('landingMin', String(f.landingMin))
  if (f.keyMax !== null) query.set('keyMax', String(f.keyMax))
  if (f.states !== null) query.set('states', f.states)
  if (f.text !== '') query.set('find', f.text)
  if (f.sort !== 'use') query.set('sort', f.sort)
}

/** The filters as a wish over one chord. */
export const overlayFilterFrom = (f: Filters, chord: Chord): OverlayFilter => {
  const on = (ups: readonly number[]) => setOf(ups.map((up) => pitchClass(chord.root.pc + up)))
  return {
    ...ANYTHING,
    families: f.families ?? FAMILY_NAMES,
    hold: on(f.hold),
    avoid: on(f.avoid),
    fadeMin: f.fadeMin,
    fadeMax: f.fadeMax < 100 ? f.fadeMax : null,
    landingMin: f.landingMin,
    keyMax: f.keyMax,
    states: f.states,
    text: f.text,
    sort: f.sort,
  }
}

/** A degree's next state as it is pressed: must hold, must not hold, either. */
export const toggled = (f: Filters, up: number, to: 'hold' | 'avoid' | 'next' | 'off'): Filters => {
  const without = { ...f, hold: f.hold.filter((u) => u !== up), avoid: f.avoid.filter((u) => u !== up) }
  const is = f.hold.includes(up) ? 'hold' : f.avoid.includes(up) ? 'avoid' : 'off'
  const then = to !== 'next' ? (to === is ? 'off' : to) : is === 'off' ? 'hold' : is === 'hold' ? 'avoid' : 'off'
  if (then === 'off') return without
  return { ...without, [then]: [...without[then], up].sort((a, b) => a - b) }
}
