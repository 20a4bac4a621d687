import Joi, { type ObjectSchema, type Schema } from 'joi'
import parse from 'joi-to-json'
import { ANSWERS, PROBLEM } from './answer-schemas.ts'
import { BACKUP_LIST, BACKUP_QUERY, RESTORE_BODY, RESTORE_QUERY, RESTORED } from './backup/schemas.ts'
import { BODIES, QUERIES } from './compute-schemas.ts'
import { DOOR, NAME_BODY, OPEN_BODY } from './devices/schemas.ts'
import { FILE_QUERIES } from './file-schemas.ts'
import { KIND_NAMES, KINDS, type KindName } from './kinds.ts'
import { PLAYING_BODY, TOLD } from './live/schemas.ts'
import { MAKE_BODY, REUSE_BODY, STUDY_BODY, VARY_BODY } from './make-schemas.ts'
import { PRACTICE_QUERIES } from './practice.ts'
import { QUIZ_BODY } from './quiz.ts'
import { CHANGE, listOf, NEW, ROWS, STEP_OF_UNDO } from './schemas.ts'
import { SOUND_TYPES } from './sounds.ts'
import { PART, SOUND_FROM, TAKE_BODY } from './take-schemas.ts'

type JsonSchema = Readonly<Record<string, unknown>> & {
  readonly properties?: Readonly<Record<string, JsonSchema>>
  readonly required?: readonly string[]
}

/** A Joi schema as the JSON Schema that OpenAPI 3.1 speaks. */
const jsonOf = (schema: Schema): JsonSchema => {
  const { $schema: _, ...rest } = parse(schema, 'json-draft-2019-09') as JsonSchema
  return rest
}

const parametersOf = (query: ObjectSchema) => {
  const { properties = {}, required = [] } = jsonOf(query)
  return Object.entries(properties).map(([name, { default: _, ...schema }]) => ({
    name,
    in: 'query',
    required: required.includes(name),
    schema,
  }))
}

const content = (type: string, schema: JsonSchema) => ({ content: { [type]: { schema } } })
/** A JSON body that must be sent. */
const sent = (schema: ObjectSchema) => ({ required: true, ...content('application/json', jsonOf(schema)) })
const problem = { $ref: '#/components/responses/Problem' }

const responses = (answer: Schema) => ({
  200: { description: 'The answer', ...content('application/json', jsonOf(answer)) },
  default: problem,
})

const operation = (id: string, query: ObjectSchema, answer: Schema) => ({
  get: { operationId: id, parameters: parametersOf(query), responses: responses(answer) },
})

const posted = (id: string, body: ObjectSchema, answer: Schema) => ({
  post: {
    operationId: id,
    requestBody: sent(body),
    responses: responses(answer),
  },
})

const NO_QUERY = Joi.object({})
type Path = keyof typeof ANSWERS
const BODY_OF: Readonly<Partial<Record<Path, ObjectSchema>>> = {
  'charts/analyse': BODIES.analyse,
  'routes/plan': BODIES.plan,
  'lines/audit': BODIES.audit,
  quiz: QUIZ_BODY,
  'lines/make': MAKE_BODY,
  'lines/vary': VARY_BODY,
  'lines/reuse': REUSE_BODY,
  'lines/study': STUDY_BODY,
  'takes/read': TAKE_BODY,
  'takes/recover': NO_QUERY,
}
const QUERY_OF: Readonly<Partial<Record<Path, ObjectSchema>>> = {
  ...QUERIES,
  'pairs/derive': QUERIES.derive,
  health: NO_QUERY,
  'practice/today': PRACTICE_QUERIES.today,
  'practice/cards': PRACTICE_QUERIES.cards,
  'practice/coverage': PRACTICE_QUERIES.coverage,
  'practice/course': PRACTICE_QUERIES.course,
}

const computing = () =>
  (Object.keys(ANSWERS) as Path[]).map((path) => {
    const [id, body] = [path.replace('/', '-'), BODY_OF[path]]
    return [
      `/${path}`,
      body ? posted(id, body, ANSWERS[path]) : operation(id, QUERY_OF[path] ?? NO_QUERY, ANSWERS[path]),
    ] as const
  })

const ID = { name: 'id', in: 'path', required: true, schema: { type: 'string' } }
const file = { 200: { description: 'A file' }, default: problem }

const ofRow = (id: string, query: ObjectSchema) => ({
  get: { operationId: id, parameters: [ID, ...parametersOf(query)], responses: file },
})
const FORM = content('multipart/form-data', {
  type: 'object',
  required: ['file'],
  properties: { file: { type: 'string', format: 'binary' } },
})
const uploaded = (id: string, query: ObjectSchema) => ({
  post: {
    operationId: id,
    parameters: parametersOf(query),
    requestBody: { required: true, ...FORM },
    responses: { 200: { description: 'What was read, and what was left out and why' }, default: problem },
  },
})

const BYTES = { type: 'string', format: 'binary' } as const
const SOUND = {
  get: { operationId: 'takes-sound', parameters: [ID], responses: file },
  put: {
    operationId: 'takes-sound-write',
    parameters: [ID, ...parametersOf(SOUND_FROM)],
    requestBody: {
      required: true,
      content: Object.fromEntries(SOUND_TYPES.map((type) => [type, { schema: BYTES }])),
    },
    responses: { 200: { description: 'How much of the sound is kept' }, default: problem },
  },
  delete: {
    operationId: 'takes-sound-remove',
    parameters: [ID],
    responses: { 200: { description: 'It is gone' }, default: problem },
  },
}
const PARTS = {
  post: {
    operationId: 'takes-part',
    parameters: [ID],
    requestBody: sent(PART),
    responses: { 200: { description: 'The part is kept' }, default: problem },
  },
}

const BACKUPS = [
  ['/backup', { get: { operationId: 'backup', parameters: parametersOf(BACKUP_QUERY), responses: file } }],
  ['/backups', operation('backups', NO_QUERY, BACKUP_LIST)],
  ['/backups/{name}', { get: { operationId: 'backups-get', parameters: [{ ...ID, name: 'name' }], responses: file } }],
  [
    '/restore',
    {
      post: {
        operationId: 'restore',
        parameters: parametersOf(RESTORE_QUERY),
        requestBody: {
          required: true,
          content: {
            ...content('application/zip', BYTES).content,
            ...FORM.content,
            ...content('application/json', jsonOf(RESTORE_BODY)).content,
          },
        },
        responses: responses(RESTORED),
      },
    },
  ],
] as const

const FILES = [
  ['/practice/export', { get: { operationId: 'practice-export', parameters: [], responses: file } }],
  ['/import', uploaded('import', FILE_QUERIES.import)],
  ['/lines/read', uploaded('lines-read', FILE_QUERIES.readLine)],
  ['/charts/{id}/export', ofRow('charts-export', FILE_QUERIES.export)],
  ['/charts/{id}/band', ofRow('charts-band', FILE_QUERIES.band)],
  ['/lines/{id}/export', ofRow('lines-export', FILE_QUERIES.exportLine)],
  ['/takes/{id}/export', ofRow('takes-export', FILE_QUERIES.exportTake)],
  ['/takes/{id}/sound', SOUND],
  ['/takes/{id}/parts', PARTS],
  ['/routes/{id}/export', ofRow('routes-export', FILE_QUERIES.exportRoute)],
] as const

const put = (id: string, body: ObjectSchema) => ({
  put: {
    operationId: id,
    requestBody: sent(body),
    responses: responses(DOOR),
  },
})
const DOORS = [
  ['/door', { ...operation('door', NO_QUERY, DOOR), ...put('door-open', OPEN_BODY) }],
  ['/door/code', posted('door-code', NO_QUERY, DOOR)],
  [
    '/devices/{id}',
    {
      parameters: [ID],
      ...put('devices-name', NAME_BODY),
      delete: { operationId: 'devices-remove', responses: responses(DOOR) },
    },
  ],
] as const

/** What is changed and played elsewhere, as it comes; each event holds JSON of its own. */
const LIVE = [
  [
    '/changes',
    {
      get: {
        operationId: 'changes',
        responses: {
          200: { description: 'Events, as long as one listens', ...content('text/event-stream', { type: 'string' }) },
          default: problem,
        },
      },
    },
  ],
  ['/playing', posted('playing', PLAYING_BODY, TOLD)],
] as const

const KEPT = {
  id: Joi.string().required(),
  version: Joi.number().integer().min(1).required(),
  createdAt: Joi.string().isoDate().required(),
  updatedAt: Joi.string().isoDate().required(),
}

/** Lists and rows of one kind. */
const keeping = (kind: KindName) => {
  const [fields, row] = [ROWS[kind], ROWS[kind].keys(KEPT)]
  const asked = row.fork(Object.keys(ROWS[kind].describe().keys ?? {}), (field) => field.optional())
  const list = Joi.object({ items: Joi.array().items(asked).required(), next: Joi.string().allow(null).required() })
  const removed = Joi.object({ ...GONE, undo: Joi.object().required() })
  return [
    [
      `/${kind}`,
      {
        get: { operationId: `${kind}-list`, parameters: parametersOf(listOf(KINDS[kind])), responses: responses(list) },
        post: {
          operationId: `${kind}-make`,
          parameters: parametersOf(STEP_OF_UNDO),
          requestBody: sent(fields.concat(NEW)),
          responses: { 201: responses(row)[200], default: problem },
        },
      },
    ],
    [
      `/${kind}/{id}`,
      {
        get: { operationId: `${kind}-get`, parameters: [ID], responses: responses(row) },
        put: {
          operationId: `${kind}-change`,
          parameters: [ID, ...parametersOf(STEP_OF_UNDO)],
          requestBody: sent(fields.keys({ version: KEPT.version })),
          responses: responses(row),
        },
        delete: { operationId: `${kind}-remove`, parameters: [ID], responses: responses(removed) },
      },
    ],
  ] as const
}

const GONE = { id: KEPT.id, deletedAt: Joi.string().isoDate().required(), change: Joi.string().required() }
const BROUGHT = Joi.object({
  change: Joi.string().required(),
  id: KEPT.id,
  action: Joi.string().valid('create', 'update', 'delete').required(),
  kind: Joi.string()
    .valid(...KIND_NAMES)
    .required(),
  row: Joi.object().unknown().allow(null).required(),
})

/** The whole interface, from the same schemas that check it. */
export const openapi = (version: string) => ({
  openapi: '3.1.0',
  info: { title: 'Crossfade', version },
  servers: [{ url: '/api/v1' }],
  paths: Object.fromEntries<object>([
    ...computing(),
    ...FILES,
    ...BACKUPS,
    ...DOORS,
    ...LIVE,
    ...KIND_NAMES.flatMap(keeping),
    ['/undo', posted('undo', CHANGE, BROUGHT)],
    ['/redo', posted('redo', CHANGE, BROUGHT)],
    ['/openapi.json', { get: { operationId: 'openapi', responses: { 200: { description: 'This description' } } } }],
  ]),
  components: {
    responses: { Problem: { description: 'What was wrong', ...content('application/problem+json', jsonOf(PROBLEM)) } },
  },
})
