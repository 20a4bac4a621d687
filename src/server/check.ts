import type { ObjectSchema } from 'joi'
import { fieldError, fieldProblem, Problem } from './problems.ts'

/** The value as its schema has it; what is not so is a problem that names each field. */
export const check = <T>(schema: ObjectSchema<T>, input: unknown): T => {
  const { value, error } = schema.validate(input, { abortEarly: false, convert: true })
  if (error === undefined) return value
  const errors = error.details
    .slice(0, MOST_ERRORS)
    .map((d) =>
      fieldError(d.path.join('.'), d.message.replaceAll('"', ''), d.context?.value, d.context?.valids?.map(String)),
    )
  throw new Problem('bad_request', errors.map((e) => e.message).join('; '), errors)
}

const MOST_ERRORS = 20

/** The parameters of an address, checked. One given twice is refused rather than guessed at. */
export const checkQuery = <T>(parameters: Iterable<readonly [string, string]>, schema: ObjectSchema<T>): T => {
  const given = new Map<string, string>()
  for (const [key, value] of parameters) {
    if (given.has(key)) throw fieldProblem(key, `${key} is given twice`, value, ['one value'])
    refuseUnwritable(key, key)
    refuseUnwritable(key, value)
    given.set(key, value)
  }
  return check(schema, Object.fromEntries(given))
}

/** A text nobody can write down: half of a character of two halves, or a zero, which ends texts elsewhere. */
export const isUnwritable = (text: string): boolean => !text.isWellFormed() || text.includes('\u0000')

const refuseUnwritable = (path: string, text: string): void => {
  if (isUnwritable(text)) throw fieldProblem(path, `${shown(path)} holds half a character or a zero character.`, '')
}
const shown = (path: string): string => (path === '' || isUnwritable(path) ? 'The body' : path)

/** No body of ours is nested deeper. */
const DEEPEST = 32

/** Walks a parsed body without calling itself: nothing too deep, no unwritable text, in names as in values. */
export const refuseOddities = (body: unknown): void => {
  const waiting: { readonly value: unknown; readonly path: string; readonly depth: number }[] = [
    { value: body, path: '', depth: 0 },
  ]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    const { value, path, depth } = next
    if (typeof value === 'string') refuseUnwritable(path, value)
    if (typeof value !== 'object' || value === null) continue
    if (depth === DEEPEST) throw fieldProblem('', `The body is nested more than ${DEEPEST} deep.`, '', ['less depth'])
    for (const [name, inside] of Object.entries(value)) {
      refuseUnwritable(path, name)
      if (typeof inside === 'string' || (typeof inside === 'object' && inside !== null))
        waiting.push({ value: inside, path: path === '' ? name : `${path}.${name}`, depth: depth + 1 })
    }
  }
}

/** A JSON body, checked. */
export const checkJson = <T>(bytes: Uint8Array, schema: ObjectSchema<T>): T => {
  let parsed: unknown
  try {
    parsed = JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    throw fieldProblem('', 'The body is not JSON.', '', ['JSON'])
  }
  refuseOddities(parsed)
  return check(schema, parsed)
}

/** A file that came in a form. */
export interface Upload {
  readonly name: string
  readonly bytes: Uint8Array
}

/** The one file of a form, `type` being its content type. */
export const checkUpload = async (type: string, body: Uint8Array): Promise<Upload> => {
  let form: FormData
  try {
    form = await new Response(body as Uint8Array<ArrayBuffer>, { headers: { 'content-type': type } }).formData()
  } catch {
    throw fieldProblem('', 'The body is no form.', '', ['multipart/form-data'])
  }
  const file = [...form.values()].find((v) => v instanceof File)
  if (!(file instanceof File)) throw fieldProblem('file', 'A file is missing.', '', ['a file'])
  return { name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) }
}
