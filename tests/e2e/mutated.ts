/** Requests made from the interface's own description, each with something wrong or odd in it. The same seed makes the same ones. */
type Schema = Readonly<Record<string, unknown>>
interface Operation {
  readonly parameters?: readonly { readonly name: string; readonly in: string; readonly schema: Schema }[]
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> }
}
export interface Spec {
  readonly paths: Readonly<Record<string, Readonly<Record<string, Operation>>>>
}

export interface Mutated {
  readonly method: string
  readonly path: string
  readonly body: string | FormData | null
  readonly type: string | null
}

export type Random = (below: number) => number
/** Whole numbers by a linear congruence. */
export const randomFrom = (seed: number): Random => {
  let state = seed >>> 0
  return (below) => {
    state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0
    return Math.floor((state / 2 ** 32) * below)
  }
}

const TUNE = 'X:1\nL:1/8\nM:4/4\nK:C\n"Dm7"DFAc "G7"BGFD|"C"C8|'
/** What makes sense where a name is asked for, so that most of a request is right. */
const GOOD: Readonly<Record<string, readonly unknown[]>> = {
  text: ['| Dm7 | G7 | Cmaj7 | % |', 'metre = 3/4\n== A\n|: Cm7 F7 | Bb6 :|', '| N.C. | (A|Bb) |'],
  q: ['B minor pentatonic over Eb7 to Abmaj7', 'pairs over Db7', '| Dm7 G7 | Cmaj7 |', 'what can I play over C7'],
  chord: ['Eb7', 'Am7b5', 'N.C.'],
  symbol: ['Eb7(b9,13)', '(A|Bb)'],
  next: ['Abmaj7', ''],
  scale: ['Ab ionian', 'F half-whole'],
  of: ['Ebdim7', 'G7'],
  notes: ['Ab,C,Eb', [{ at: 0, for: 480, pitch: 62 }]],
  overlay: ['B dorian', 'Ab & Bb'],
  key: ['C', 'F# minor', ''],
  families: ['pentatonic,triad', ['triad']],
  hold: ['9,#11', ['3']],
  avoid: ['7', []],
  motion: ['+1', 'contrary', 'free', 'any constant'],
  line: [{ abc: TUNE }, { notes: [{ at: 0, for: 960, pitch: 'F#4' }] }],
  change: ['1', null],
  bars: [[1, 2], null],
  steps: [[{ overlay: 'B dorian', chord: 'Eb7', bar: 1, beat: 1 }]],
  as: ['musicxml', 'midi', 'abc', 'csv', 'text'],
  limit: [1, 3],
  version: [1, 2],
  after: ['', Buffer.from('["2026-01-01","x"]').toString('base64url')],
  school: ['{"wayHome":"angular"}', { wayHome: 'angular' }],
}

const ODD: readonly unknown[] = [
  null,
  '',
  ' ',
  0,
  -1,
  1.5,
  2 ** 31,
  2 ** 53,
  1e308,
  -1e308,
  true,
  [],
  {},
  [[[[]]]],
  { '': { constructor: 1 } },
  'a\u0000b',
  '\ud800',
  '𝄫♯',
  '%',
  '../../etc',
  "'; drop table charts; --",
  '<script>',
  'C'.repeat(300),
  '(('.repeat(200),
  '| '.repeat(400),
  '|: C '.repeat(100),
  '99999999999',
  'Z9999|',
  '1e9',
  'NaN',
  'Infinity',
  '\u202e\uffff',
  'b'.repeat(2000),
  '['.repeat(500),
  'C'.repeat(9) + ' over '.repeat(50),
]

const pick = <T>(all: readonly T[], random: Random): T => all[random(all.length)] as T

const cut = (text: string, random: Random): string => {
  const at = random(text.length + 1)
  const kind = random(4)
  const piece = String(pick(ODD, random)).slice(0, 40)
  if (kind === 0) return text.slice(0, at)
  if (kind === 1) return text.slice(0, at) + piece + text.slice(at)
  if (kind === 2) return text.slice(0, at) + text.slice(at + 1 + random(3))
  return text.slice(0, at) + text.slice(random(at + 1)) + text.slice(at)
}

/** A value that fits where it is asked for, or nearly. */
const valueFor = (name: string, schema: Schema, random: Random): unknown => {
  const good = GOOD[name]
  if (good && random(3) > 0) return pick(good, random)
  const allowed = schema.enum as readonly unknown[] | undefined
  if (allowed && random(4) > 0) return pick(allowed, random)
  const kinds = [schema.type].flat()
  if (kinds.includes('integer') || kinds.includes('number')) return random(5) === 0 ? random(1e9) : random(12)
  if (kinds.includes('boolean')) return random(2) === 0
  if (kinds.includes('array')) {
    const items = (schema.items as Schema | undefined) ?? {}
    return Array.from({ length: random(4) }, () => valueFor('', items, random))
  }
  if (schema.properties) return bodyFor(schema, random)
  return pick(['Weir', 'C', '9', 'x'], random)
}

const bodyFor = (schema: Schema, random: Random): Record<string, unknown> => {
  const properties = (schema.properties ?? {}) as Readonly<Record<string, Schema>>
  const required = (schema.required ?? []) as readonly string[]
  const names = Object.keys(properties).filter((name) => required.includes(name) || random(3) === 0)
  return Object.fromEntries(names.map((name) => [name, valueFor(name, properties[name] ?? {}, random)]))
}

const mutate = (value: unknown, random: Random): unknown => {
  if (random(4) === 0) return pick(ODD, random)
  if (typeof value === 'string') return cut(value, random)
  if (Array.isArray(value))
    return value.length === 0 || random(2) === 0 ? [...value, pick(ODD, random)] : value.slice(1)
  if (typeof value !== 'object' || value === null) return pick(ODD, random)
  const names = Object.keys(value)
  const name = names.length === 0 || random(8) === 0 ? String(pick(ODD, random)) : pick(names, random)
  return { ...value, [name]: mutate((value as Record<string, unknown>)[name], random) }
}

const queryOf = (operation: Operation, random: Random): string => {
  const asked = (operation.parameters ?? []).filter((p) => p.in === 'query' && (p.name === 'q' || random(2) === 0))
  const pairs = asked.map(({ name, schema }): [string, string] => {
    const good = valueFor(name, schema, random)
    const value = random(3) === 0 ? mutate(good, random) : good
    return [name, typeof value === 'string' ? value.toWellFormed() : JSON.stringify(value)]
  })
  if (random(12) === 0) pairs.push(['harbour', 'x'])
  return String(new URLSearchParams(pairs))
}

const formOf = (random: Random): FormData => {
  const form = new FormData()
  const text = random(3) === 0 ? TUNE : `<score-partwise><part><measure/></part></score-partwise>`
  const field = random(6) === 0 ? 'x' : 'file'
  if (random(6) === 0) form.append(field, 'text')
  else form.append(field, new Blob([cut(text, random)]), 'weir')
  return form
}

/** One request; `ids` are of rows that are kept. */
export const mutatedFrom = (spec: Spec, ids: readonly string[], random: Random): Mutated => {
  const [path, methods] = pick(Object.entries(spec.paths), random)
  const [method, operation] = pick(Object.entries(methods), random)
  const id = random(3) === 0 ? encodeURIComponent(String(pick(ODD, random)).toWellFormed()) : pick(ids, random)
  const query = queryOf(operation, random)
  const address = `${path.replace('{id}', id).slice(1)}${query ? `?${query}` : ''}`
  const content = operation.requestBody?.content ?? {}
  if ('multipart/form-data' in content)
    return { method: 'POST', path: address, body: random(9) === 0 ? '{}' : formOf(random), type: null }
  const json = content['application/json']
  if (!json) return { method: method.toUpperCase(), path: address, body: null, type: null }
  const good = bodyFor(json.schema, random)
  const body = random(8) === 0 ? good : mutate(good, random)
  const text = JSON.stringify(body) ?? ''
  return {
    method: method.toUpperCase(),
    path: address,
    body: random(20) === 0 ? cut(text, random) : text,
    type: random(40) === 0 ? 'text/plain' : 'application/json',
  }
}
