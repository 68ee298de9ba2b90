import { describe, expect, test } from 'vitest'
import { addressOf } from './address.ts'
import { allRoutes } from './all.ts'
import { openApi } from './open-api.ts'

const names = (path: string): string[] => [...path.matchAll(/:(\w+)/g)].map((m) => m[1]!)

describe('every call', () => {
  test('there are many, and no two have the same method and address', () => {
    const keys = allRoutes.map((r) => `${r.route.method} ${r.route.path}`)
    expect(keys.length).toBeGreaterThan(60)
    expect(new Set(keys).size).toBe(keys.length)
  })
  test.each(allRoutes.map((r) => [`${r.room} ${r.name}`, r.route] as const))(
    '%s says what its address needs, and a home’s call holds its link',
    (_name, route) => {
      expect(Object.keys(route.params.shape).sort()).toEqual(names(route.path).sort())
      expect(route.who === 'home').toBe(names(route.path).includes('token'))
      expect(route.summary).toMatch(/^[A-Z].*\.$/)
      if (route.method === 'GET') expect(route.raw).toBe(false)
      else expect(route.changesWith).toEqual([])
    },
  )
})

describe('an address', () => {
  test('has its parameters in the path and the rest in the query, written safely', () =>
    expect(addressOf('/api/a/:id/b', { id: 'x/y', before: 3, q: 'a b', none: undefined, empty: '' })).toBe(
      '/api/a/x%2Fy/b?before=3&q=a%20b',
    ))
  test('that lacks a parameter is never asked', () =>
    expect(() => addressOf('/api/a/:id', {})).toThrow(/needs id/))
})

describe('the API’s document', () => {
  const paths = openApi().paths as Record<string, Record<string, Record<string, unknown>>>
  test('has every call with its answer', () => {
    const calls = Object.values(paths).flatMap((p) => Object.values(p))
    expect(calls).toHaveLength(allRoutes.length)
    expect(new Set(calls.map((c) => c.operationId)).size).toBe(allRoutes.length)
  })
  test('writes a body, a query and a file as what they are', () => {
    expect(JSON.stringify(paths['/api/lessons/{lessonId}/doc']!.put!.requestBody)).toContain('"revision"')
    expect(paths['/api/lessons/{lessonId}/revisions']!.get!.parameters).toMatchObject([
      { name: 'lessonId', in: 'path', required: true },
      { name: 'before', in: 'query', required: false },
    ])
    expect(JSON.stringify(paths['/api/takes/{takeId}/film']!.get!.responses)).toContain('video/mp4')
    expect(paths['/api/takes/{takeId}']!.delete!.requestBody).toBeUndefined()
  })
})
