import { act, renderHook } from '@testing-library/react'
import { createElement, type ReactNode } from 'react'
import { SWRConfig } from 'swr'

/** What a request was, for the stand-in server of a test to answer. */
export interface Asked {
  method: string
  path: string
  body: unknown
}
export type Answer = { status?: number; body?: unknown } | 'away'
/** Answers requests in place of the server; gives what was asked so far. */
export function answering(answer: (asked: Asked) => Answer | Promise<Answer>): {
  asked: Asked[]
  fetch: typeof fetch
} {
  const asked: Asked[] = []
  return {
    asked,
    fetch: async (input, init) => {
      const one = {
        method: init?.method ?? 'GET',
        path: input instanceof Request ? input.url : input.toString(),
        body: typeof init?.body === 'string' ? (JSON.parse(init.body) as unknown) : undefined,
      }
      asked.push(one)
      const given = await answer(one)
      if (given === 'away') throw new TypeError('no connection')
      return new Response(given.body === undefined ? null : JSON.stringify(given.body), {
        status: given.status ?? 200,
      })
    },
  }
}
/** Renders a hook as a page would, with a cache of its own. */
export const hook = <T>(use: () => T) =>
  renderHook(use, {
    wrapper: ({ children }: { children: ReactNode }) =>
      createElement(
        SWRConfig,
        {
          value: {
            provider: () => new Map(),
            dedupingInterval: 0,
            revalidateOnFocus: false,
            shouldRetryOnError: false,
          },
        },
        children,
      ),
  })
/** Lets time pass, with everything that waits for it. */
export const pass = (ms: number): Promise<void> =>
  act(async () => {
    await (await import('vitest')).vi.advanceTimersByTimeAsync(ms)
  })
