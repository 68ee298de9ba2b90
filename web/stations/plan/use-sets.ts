import { useMemo, useState } from 'react'
import { findExamples, nextLike, type SearchResult, scoreOf } from '@awlbox/core/plan/examples'
import { exampleSentence, factKey } from '@awlbox/core/plan/numbers/facts'
import { type HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Example } from '@awlbox/core/contracts/lesson'
import type { RowActions } from './example-sets.tsx'
import type { AimChoice } from './aim-editor.tsx'

/** Example sets for an aim; searching again starts from another seed, keeps what is kept, and one example can be swapped for another like it. */
export function useSets(value: AimChoice, style: HouseStyle, start: readonly Example[] = []) {
  const [seed, setSeed] = useState(1)
  const [chosen, setChosen] = useState(0)
  const [said, setSaid] = useState<string | null>(null)
  const [kept, setKept] = useState<readonly Example[]>(start.filter((e) => e.locked))
  // What stood at a place before: asking on and on goes through all there are, and only then begins again.
  const [offered, setOffered] = useState<Readonly<Record<string, readonly string[]>>>({})
  const [swapped, setSwapped] = useState<{
    of: SearchResult
    sets: Readonly<Record<number, Example[]>>
  } | null>(null)
  const options = useMemo(
    () => ({ zero: style.zeroIsPart, turnRounds: style.turnRoundsCount, seed }),
    [style, seed],
  )
  const found = useMemo(
    () =>
      findExamples(value.aim, { ...options, keep: kept.map(({ a, b, total, op }) => ({ a, b, total, op })) }),
    [value.aim, options, kept],
  )
  const result: SearchResult = useMemo(() => {
    const own = swapped?.of === found ? swapped.sets : {}
    return found.ok
      ? {
          ...found,
          sets: found.sets.map((s, i) => (own[i] ? { ...s, examples: own[i], score: scoreOf(own[i]) } : s)),
        }
      : found
  }, [found, swapped])
  const at = result.ok ? Math.min(chosen, result.sets.length - 1) : 0
  const isKept = (e: Example) => kept.some((k) => factKey(k) === factKey(e))
  const actions = (set: number): RowActions => ({
    locked: isKept,
    onLock: (e) => setKept(isKept(e) ? kept.filter((k) => factKey(k) !== factKey(e)) : [...kept, e]),
    onAnother: (e) => {
      if (!result.ok) return
      const examples = result.sets[set]!.examples
      const place = `${set}:${examples.indexOf(e)}`
      const { next, again, ...after } = nextLike(e, examples, value.aim, {
        ...options,
        offered: offered[place] ?? [],
      })
      setOffered({ ...offered, [place]: after.offered })
      setSaid(
        !next
          ? `There is no other fact like ${exampleSentence(e)} for this aim.`
          : again
            ? 'All facts like it have been shown: they begin again.'
            : null,
      )
      if (next)
        setSwapped({
          of: found,
          sets: {
            ...(swapped?.of === found ? swapped.sets : {}),
            [set]: examples.map((x) => (x === e ? next : x)),
          },
        })
    },
    onOwn: (own) => {
      if (!result.ok) return 'Mend the aim first.'
      const examples = result.sets[set]!.examples
      if (examples.some((x) => factKey(x) === factKey(own))) return `${exampleSentence(own)} is in the set.`
      // Its own fact takes the place of the last one that nobody asked to keep.
      const last = examples.findLastIndex((x) => !isKept(x))
      if (last < 0) return 'All examples are kept: let one go first.'
      setKept([...kept, own])
      setChosen(set)
      return null
    },
  })
  /** The chosen set with what was kept marked so. */
  const examples = result.ok
    ? result.sets[at]!.examples.map((e) => (isKept(e) ? { ...e, locked: true } : e))
    : null
  return {
    result,
    chosen: at,
    choose: setChosen,
    actions,
    examples,
    said,
    again: () => {
      setSeed((s) => s + 1)
      setChosen(0)
    },
  }
}
