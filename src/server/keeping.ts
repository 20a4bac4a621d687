import Joi from 'joi'
import { endpoint, json, notAllowed, readBody, readQuery } from './door.ts'
import { KIND_NAMES, KINDS, type Kind, type KindName } from './kinds.ts'
import { Problem } from './problems.ts'
import { SORTS, type Sort } from './queries.ts'
import { createRow, deleteRow, getRow, listRows, type Undone, updateRow } from './rows.ts'
import type { Database } from './sql.ts'
import { store } from './store.ts'

export { notAllowed }

const LIST_QUERY = Joi.object<{ q: string; sort: Sort; limit: number; after: string | null }>({
  q: Joi.string().allow('').max(200).default(''),
  sort: Joi.string()
    .valid(...SORTS)
    .default('-updatedAt'),
  limit: Joi.number().integer().min(1).max(200).default(50),
  after: Joi.string().max(2000).default(null),
})

const VERSIONED = Joi.object({
  version: Joi.number().integer().min(1).required(),
  id: Joi.any().strip(),
  createdAt: Joi.any().strip(),
  updatedAt: Joi.any().strip(),
})

const isKind = (name: string | undefined): name is KindName => KIND_NAMES.some((k) => k === name)

const kindOf = (params: Record<string, string | undefined>): Kind => {
  if (isKind(params.kind)) return KINDS[params.kind]
  throw new Problem('not_found', `/api/v1/${params.kind} is not part of this interface.`)
}

const idOf = (params: Record<string, string | undefined>): string => params.id ?? ''

export const listEndpoint = endpoint(async ({ params, url }) => {
  const kind = kindOf(params)
  return json(await listRows(await store(), kind.name, readQuery(url, LIST_QUERY)))
})

export const createEndpoint = endpoint(async ({ params, request }) => {
  const kind = kindOf(params)
  const fields = await readBody(request, kind.schema)
  kind.readable(fields)
  return json(await createRow(await store(), kind.name, fields), 201)
})

export const getEndpoint = endpoint(async ({ params }) =>
  json(await getRow(await store(), kindOf(params).name, idOf(params))),
)

export const updateEndpoint = endpoint(async ({ params, request }) => {
  const kind = kindOf(params)
  const { version, ...fields } = await readBody(request, kind.schema.concat(VERSIONED))
  kind.readable(fields)
  return json(await updateRow(await store(), kind.name, idOf(params), Number(version), fields))
})

export const deleteEndpoint = endpoint(async ({ params }) =>
  json(await deleteRow(await store(), kindOf(params).name, idOf(params))),
)

const CHANGE_BODY = Joi.object<{ change: string | null }>({
  change: Joi.string()
    .pattern(/^\d{1,18}$/, 'the id of a change')
    .allow(null)
    .default(null),
})

/** Undo and redo: the last change, or the one the body names. */
export const changeEndpoint = (bring: (db: Database, given: string | null) => Promise<Undone>) =>
  endpoint(async ({ request }) => {
    const { change } = await readBody(request, CHANGE_BODY, true)
    return json(await bring(await store(), change))
  })
