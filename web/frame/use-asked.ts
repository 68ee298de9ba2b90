import { useCallback, useState } from 'react'
import useSWR, { type Fetcher, type SWRResponse, useSWRConfig } from 'swr'
import type { Answer, Asked, Route, ToldKind } from '@awlbox/core/contracts/api/route'
import { ask } from '../api.ts'

/** Under which an answer is kept: what was asked, and what of the server's news changes it. */
export interface AskedKey {
  path: string
  asked: Readonly<Record<string, unknown>>
  changesWith: readonly ToldKind[]
}
export const isAskedKey = (key: unknown): key is AskedKey =>
  typeof key === 'object' && key !== null && 'changesWith' in key && 'asked' in key

/** Whether something the server tells of changes an answer: of the same lesson where the call names one. `*`: anything may have changed. */
export const changes = (key: AskedKey, told: { kind: ToldKind; lesson: string } | '*'): boolean =>
  told === '*' ||
  (key.changesWith.includes(told.kind) &&
    (key.asked.lessonId === undefined || key.asked.lessonId === told.lesson))

/** What the server answers, kept for all who ask the same, and asked again when it changes. Null asks nothing. */
export function useAsked<T extends Route>(route: T, asked: Asked<T> | null): SWRResponse<Answer<T>, unknown> {
  const key: AskedKey | null = asked && {
    path: route.path,
    asked: { ...asked },
    changesWith: route.changesWith,
  }
  const fetcher: Fetcher<Answer<T>, AskedKey> = () => ask(route, asked!)
  return useSWR<Answer<T>, unknown, AskedKey | null>(key, fetcher)
}

/** Asks again what this window itself has changed, for all who show it. */
export function useAskAgain(): <T extends Route>(route: T, asked: Asked<T>) => void {
  const { mutate } = useSWRConfig()
  return useCallback(
    (route, asked) => {
      const same = JSON.stringify({ ...asked })
      void mutate((key) => isAskedKey(key) && key.path === route.path && JSON.stringify(key.asked) === same)
    },
    [mutate],
  )
}

/** A list that comes in pages, each with what to ask the next one by. */
type Paged = { items: readonly unknown[]; next: string | null }
/** All pages of a list, one after another: nothing is left out however long it is, and the first is there at once. */
export function useAllPages<T extends Route>(
  route: T,
  asked: Asked<T>,
): SWRResponse<Answer<T> & Paged, unknown> {
  const key: AskedKey = { path: route.path, asked: { ...asked }, changesWith: route.changesWith }
  const name = JSON.stringify(key)
  /** What has come so far of the list that is asked for the first time. */
  const [part, setPart] = useState<{ of: string; pages: Answer<T> & Paged } | null>(null)
  const fetcher: Fetcher<Answer<T> & Paged, AskedKey> = async () => {
    const page = async (after: string | null): Promise<Answer<T> & Paged> =>
      (await ask(route, { ...asked, ...(after === null ? {} : { after }) })) as Answer<T> & Paged
    let all = await page(null)
    while (all.next !== null) {
      setPart({ of: name, pages: all })
      const more = await page(all.next)
      all = { ...all, items: [...all.items, ...more.items], next: more.next }
    }
    return all
  }
  const swr = useSWR<Answer<T> & Paged, unknown, AskedKey>(key, fetcher)
  const soFar = part?.of === name ? part.pages : undefined
  return { ...swr, data: swr.data ?? soFar }
}
