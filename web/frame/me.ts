import * as peopleApi from '@awlbox/core/contracts/api/people'
import { useAsked } from './use-asked.ts'
import type { Me } from '@awlbox/core/contracts/api/people'

export const useMe = (): Me | undefined => useAsked(peopleApi.me, {}).data
