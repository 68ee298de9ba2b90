/** A class with who is in it, as a new school year sees it. */
export interface ClassNow {
  id: string
  name: string
  age: number
  children: readonly { id: string; name: string }[]
}
/** Where the children of a class go: another class, or null where they leave. A class not named stays as it is. */
export type Goes = ReadonlyMap<string, string | null>
export interface YearPlan {
  moves: { childId: string; from: string; to: string | null }[]
  /** Each class with who is in it afterwards. */
  after: { id: string; name: string; age: number; children: { id: string; name: string; from: string }[] }[]
  leaving: { id: string; name: string; from: string }[]
}

/**
 * What is usual: the children of a class go to the class of the next age, those of the oldest leave. With several classes
 * of an age they go to the first of the next in the order given.
 */
export function usualYear(classes: readonly ClassNow[]): Map<string, string | null> {
  const ages = [...new Set(classes.map((c) => c.age))].sort((a, b) => a - b)
  return new Map(
    classes.map((c) => {
      const next = ages.find((a) => a > c.age)
      return [c.id, classes.find((d) => d.age === next)?.id ?? null]
    }),
  )
}

/** A new school year as it will be. `one` sends single children elsewhere than their class; a child's own class keeps it. */
export function yearPlan(
  classes: readonly ClassNow[],
  goes: Goes,
  one: ReadonlyMap<string, string | null> = new Map(),
): YearPlan {
  const after = new Map(
    classes.map((c) => [
      c.id,
      { id: c.id, name: c.name, age: c.age, children: [] as YearPlan['after'][number]['children'] },
    ]),
  )
  const plan: YearPlan = { moves: [], after: [...after.values()], leaving: [] }
  for (const c of classes)
    for (const child of c.children) {
      const own = one.get(child.id)
      const to = own !== undefined ? own : goes.has(c.id) ? goes.get(c.id)! : c.id
      const goesTo = to !== null && !after.has(to) ? c.id : to
      const there = { ...child, from: c.id }
      if (goesTo === null) plan.leaving.push(there)
      else after.get(goesTo)!.children.push(there)
      if (goesTo !== c.id) plan.moves.push({ childId: child.id, from: c.id, to: goesTo })
    }
  return plan
}
