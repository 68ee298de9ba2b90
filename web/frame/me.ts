import useSWR from 'swr'
import type { Me } from './types.ts'

export const useMe = (): Me | undefined => useSWR<Me>('/api/me').data
