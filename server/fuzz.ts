import fc from 'fast-check'
import { z } from 'zod'
import type { Route } from '@awlbox/core/contracts/api/route'

/** Requests nobody meant: made from the contracts, near enough to them to get past the first gate, then bent. */

interface Schema {
  type?: string
  properties?: Record<string, Schema>
  required?: string[]
  items?: Schema
  prefixItems?: Schema[]
  anyOf?: Schema[]
  oneOf?: Schema[]
  allOf?: Schema[]
  enum?: unknown[]
  const?: unknown
  additionalProperties?: Schema | boolean
  format?: string
  pattern?: string
  minimum?: number
  maximum?: number
  exclusiveMinimum?: number
  maxLength?: number
  $ref?: string
  $defs?: Record<string, Schema>
}
const nasty = fc.constantFrom<unknown>(
  '\0',
  'a\0b',
  '\ud800',
  'x\udfff',
  '\u202e\u0000',
  '<'.repeat(3000),
  '%00',
  "'; drop table lessons; --",
  '../../../etc/passwd',
  '',
  ' ',
  -1,
  0,
  0.5,
  2 ** 31,
  2 ** 53,
  1e308,
  -1e308,
  '0000-01-01',
  '99999-12-31',
  '0000-00-00T00:00:00Z',
  null,
  true,
  [],
  {},
  [[[[]]]],
  { __proto__: 1, constructor: { prototype: {} } },
)
/** A value for a schema, about right. */
function near(s: Schema, root: Schema, depth = 0): fc.Arbitrary<unknown> {
  if (s.$ref) {
    const name = s.$ref.split('/').at(-1)!
    return depth > 5 ? fc.constant(null) : near(root.$defs?.[name] ?? root, root, depth + 1)
  }
  if (s.const !== undefined) return fc.constant(s.const)
  if (s.enum) return fc.constantFrom(...s.enum)
  const several = s.anyOf ?? s.oneOf
  if (several) return fc.oneof(...several.map((x) => near(x, root, depth + 1)))
  if (s.allOf) return near(Object.assign({}, ...s.allOf) as Schema, root, depth + 1)
  return plain(s, root, depth)
}
const days = { min: new Date('0001-01-01'), max: new Date('9999-12-31'), noInvalidDate: true } as const
function text(s: Schema): fc.Arbitrary<unknown> {
  if (s.format === 'uuid') return fc.uuid({ version: 4 })
  if (s.format === 'date') return fc.date(days).map((d) => d.toISOString().slice(0, 10))
  if (s.format === 'date-time') return fc.date(days).map((d) => d.toISOString())
  return fc.string({ unit: 'binary', minLength: 1, maxLength: Math.min(40, s.maxLength ?? 40) })
}
const least = (s: Schema, usual: number): number => s.minimum ?? s.exclusiveMinimum ?? usual
/** A value of one type. */
function plain(s: Schema, root: Schema, depth: number): fc.Arbitrary<unknown> {
  switch (s.type) {
    case 'string':
      return text(s)
    case 'integer':
      return fc.integer({
        min: Math.max(least(s, -10), -(2 ** 31)),
        max: Math.min(s.maximum ?? 2 ** 31, 2 ** 52),
      })
    case 'number':
      return fc.double({ min: least(s, -1e6), max: s.maximum ?? 1e6, noNaN: true })
    case 'boolean':
      return fc.boolean()
    case 'null':
      return fc.constant(null)
    case 'array':
      return s.prefixItems
        ? fc.tuple(...s.prefixItems.map((x) => near(x, root, depth + 1)))
        : fc.array(near(s.items ?? {}, root, depth + 1), { maxLength: depth > 3 ? 1 : 3 })
    case 'object': {
      const fields = Object.entries(s.properties ?? {}).map(
        ([k, v]) => [k, near(v, root, depth + 1)] as const,
      )
      return fc.record(Object.fromEntries(fields), { requiredKeys: s.required ?? [] })
    }
    default:
      return nasty
  }
}
/** The same with one part of it put wrong, most of the time. */
const bent = (inner: fc.Arbitrary<unknown>): fc.Arbitrary<unknown> =>
  fc.tuple(inner, nasty, fc.nat(), fc.nat({ max: 3 })).map(([value, wrong, where, how]) => {
    if (how === 0) return value
    const places: [Record<string, unknown>, string][] = []
    const walk = (x: unknown): void => {
      if (x === null || typeof x !== 'object') return
      for (const k of Object.keys(x)) {
        places.push([x as Record<string, unknown>, k])
        walk((x as Record<string, unknown>)[k])
      }
    }
    walk(value)
    if (!places.length || how === 1) return places.length ? value : wrong
    const [at, key] = places[where % places.length]!
    if (how === 3) delete at[key]
    else at[key] = wrong
    return value
  })

const schemaOf = (of: z.ZodType): Schema =>
  z.toJSONSchema(of, { unrepresentable: 'any', io: 'input' }) as unknown as Schema

export interface Shot {
  method: string
  path: string
  body: unknown
  who: 'anyone' | 'person' | 'home'
}
/** Requests for one route. `ids`: values that lead somewhere, by the name of the parameter. */
export function shotsAt(route: Route, ids: Readonly<Record<string, string>>): fc.Arbitrary<Shot> {
  const query = schemaOf(route.query)
  const body =
    route.method === 'GET' || route.raw
      ? fc.constant(undefined)
      : bent(near(schemaOf(route.body), schemaOf(route.body)))
  const names = [...route.path.matchAll(/:(\w+)/g)].map((m) => m[1]!)
  const params = fc.record(
    Object.fromEntries(
      names.map((n) => [
        n,
        fc.oneof(
          { weight: 8, arbitrary: fc.constant(ids[n] ?? '7') },
          {
            weight: 1,
            arbitrary: fc.constantFrom('%00', '%E0%A4%A', '..%2f..', '9'.repeat(30), '-1', '%ED%A0%80'),
          },
        ),
      ]),
    ),
  )
  const asked = fc.record(
    Object.fromEntries(
      Object.entries(query.properties ?? {}).map(([k, v]) => [
        k,
        fc.oneof({ weight: 3, arbitrary: near(v, query) }, { weight: 1, arbitrary: nasty }),
      ]),
    ),
    { requiredKeys: [] },
  )
  return fc.tuple(params, asked, body).map(([p, q, b]) => ({
    method: route.method,
    who: route.who,
    body: b,
    path:
      route.path.replace(/:(\w+)/g, (_, n: string) => p[n]!) +
      (Object.keys(q).length
        ? `?${Object.entries(q)
            .map(
              ([k, v]) =>
                `${k}=${encodeURIComponent(wellFormed(typeof v === 'string' ? v : JSON.stringify(v)))}`,
            )
            .join('&')}`
        : ''),
  }))
}
/** Half a letter cannot be put into an address. */
const wellFormed = (text: string): string => text.replace(/\p{Surrogate}/gu, '\0')
