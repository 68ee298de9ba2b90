import useSWR, { type Fetcher, type SWRResponse } from 'swr'
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
