import { useMemo, useState } from 'react'
import { findExamples } from '@awlbox/core/plan/examples'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { AimChoice } from './aim-editor.tsx'

/** Example sets for an aim; searching again starts from another seed. */
export function useSets(value: AimChoice, style: HouseStyle | undefined) {
  const [seed, setSeed] = useState(1)
  const [chosen, setChosen] = useState(0)
  const result = useMemo(() => findExamples(value.aim, { zero: style?.zeroIsPart ?? true, seed }), [value.aim, style, seed])
  const at = result.ok ? Math.min(chosen, result.sets.length - 1) : 0
  return { result, chosen: at, choose: setChosen, again: () => (setSeed((s) => s + 1), setChosen(0)) }
}
