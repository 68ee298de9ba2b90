import * as settingsApi from '@awlbox/core/contracts/api/settings'
import type { Idea } from '@awlbox/core/contracts/idea'
import { ladder } from '@awlbox/core/plan/ladder/ladder'
import { useAsked } from './use-asked.ts'

/** The setting's ladder; until it is fetched, the one everybody starts from. */
export const useIdeas = (): readonly Idea[] => useAsked(settingsApi.ladder, {}).data?.ideas ?? ladder
