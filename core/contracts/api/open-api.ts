import { z } from 'zod'
import { CutList } from '../cut.ts'
import { Hearing } from '../heard.ts'
import { HouseStyle } from '../house-style.ts'
import { Idea } from '../idea.ts'
import { Lesson, Segment } from '../lesson.ts'
import { Pack } from '../pack.ts'
import { TableState } from '../table.ts'
import { TakeRecord } from './film.ts'
import { Facts } from './lessons.ts'
import { allRoutes } from './all.ts'
import { isFile, noBody, type Route } from './route.ts'

type Json = Record<string, unknown>
/** Documents that many calls carry are written once and referred to. */
const shared = z.registry<{ id: string }>()
for (const [id, schema] of Object.entries({
  Lesson,
  Segment,
  CutList,
  Hearing,
  HouseStyle,
  Idea,
  Pack,
  TableState,
  TakeRecord,
  Facts,
}))
  shared.add(schema, { id })

type Io = 'input' | 'output'
const nameOf = (id: string, io: Io): string => (io === 'input' ? `${id}Given` : id)
/** Schema of what goes over the wire; what has no JSON Schema of its own stands as anything. Shared ones go to `into`. */
function schemaOf(schema: z.ZodType, io: Io, into: Record<string, Json>): Json {
  const made = z.toJSONSchema(schema, { io, unrepresentable: 'any', metadata: shared })
  const text = JSON.stringify(made).replace(
    /"#\/\$defs\/(\w+)"/g,
    (_m, id: string) => `"#/components/schemas/${nameOf(id, io)}"`,
  )
  const {
    $schema: _s,
    $defs = {},
    id: _id,
    ...rest
  } = JSON.parse(text) as Json & { $defs?: Record<string, Json> }
  for (const [id, { id: _, ...def }] of Object.entries($defs)) into[nameOf(id, io)] = def
  return rest
}
const parametersOf = (part: z.ZodObject, place: 'path' | 'query'): Json[] => {
  const { properties = {}, required = [] } = schemaOf(part, 'input', {}) as {
    properties?: Record<string, Json>
    required?: string[]
  }
  return Object.entries(properties).map(([name, schema]) => ({
    name,
    in: place,
    required: place === 'path' || required.includes(name),
    schema,
  }))
}
/** By name, so that the document does not depend on what is read first. */
const sorted = (all: Record<string, Json>): Record<string, Json> =>
  Object.fromEntries(Object.entries(all).sort(([a], [b]) => (a < b ? -1 : 1)))
const problem = {
  description: 'What was wrong, in words for the person (RFC 9457)',
  content: {
    'application/problem+json': {
      schema: {
        type: 'object',
        properties: {
          title: { type: 'string' },
          status: { type: 'integer' },
          detail: { type: 'string' },
        },
        required: ['title', 'status', 'detail'],
      },
    },
  },
}
const answerOf = ({ response }: Route, into: Record<string, Json>): Json =>
  isFile(response)
    ? Object.fromEntries(
        response.file.map((mime) => [mime, { schema: { type: 'string', format: 'binary' } }]),
      )
    : { 'application/json': { schema: schemaOf(response, 'output', into) } }
const bodyOf = (r: Route, into: Record<string, Json>): Json =>
  r.raw
    ? { requestBody: { content: { '*/*': { schema: { type: 'string', format: 'binary' } } } } }
    : (r.body as unknown) === noBody
      ? {}
      : {
          requestBody: {
            required: true,
            content: { 'application/json': { schema: schemaOf(r.body, 'input', into) } },
          },
        }

/** The API as an OpenAPI 3.1 document: made from the contract, never written by hand. */
export function openApi(): Json {
  const paths: Record<string, Json> = {}
  const schemas: Record<string, Json> = {}
  for (const { room, name, route } of allRoutes) {
    const path = route.path.replace(/:(\w+)/g, '{$1}')
    paths[path] = {
      ...paths[path],
      [route.method.toLowerCase()]: {
        operationId: `${room}-${name}`,
        tags: [room],
        summary: route.summary,
        security: route.who === 'person' ? [{ session: [] }] : [],
        parameters: [...parametersOf(route.params, 'path'), ...parametersOf(route.query, 'query')],
        ...bodyOf(route, schemas),
        responses: {
          200: { description: route.summary, content: answerOf(route, schemas) },
          default: problem,
        },
      },
    }
  }
  return {
    openapi: '3.1.0',
    info: { title: 'Awlbox', version: '1', description: 'What Awlbox’s own pages ask of its server.' },
    components: {
      schemas: sorted(schemas),
      securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'awlbox_session' } },
    },
    paths: sorted(paths),
  }
}
