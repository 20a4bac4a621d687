import Joi, { type ObjectSchema, type Schema } from 'joi'
import parse from 'joi-to-json'
import { ANSWERS, PROBLEM } from './answer-schemas.ts'
import { BODIES, QUERIES } from './compute-schemas.ts'

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
    requestBody: { required: true, ...content('application/json', jsonOf(body)) },
    responses: responses(answer),
  },
})

const NO_QUERY = Joi.object({})
type Path = keyof typeof ANSWERS
const BODY_OF: Readonly<Partial<Record<Path, ObjectSchema>>> = {
  'charts/analyse': BODIES.analyse,
  'routes/plan': BODIES.plan,
  'lines/audit': BODIES.audit,
}
const QUERY_OF: Readonly<Partial<Record<Path, ObjectSchema>>> = {
  ...QUERIES,
  'pairs/derive': QUERIES.derive,
  health: NO_QUERY,
}

/** The computing part of the interface, from the same schemas that check it. */
export const openapi = (version: string) => ({
  openapi: '3.1.0',
  info: { title: 'Crossfade', version },
  servers: [{ url: '/api/v1' }],
  paths: Object.fromEntries(
    (Object.keys(ANSWERS) as Path[]).map((path) => {
      const [id, body] = [path.replace('/', '-'), BODY_OF[path]]
      return [
        `/${path}`,
        body ? posted(id, body, ANSWERS[path]) : operation(id, QUERY_OF[path] ?? NO_QUERY, ANSWERS[path]),
      ]
    }),
  ),
  components: {
    responses: { Problem: { description: 'What was wrong', ...content('application/problem+json', jsonOf(PROBLEM)) } },
  },
})
