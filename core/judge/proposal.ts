import type { Help, Level, Rung } from '../contracts/reply.ts'
import type { Check } from '../look/check.ts'

export interface Proposal {
  level: Level
  help: Help
  rung: Rung | null
  because: string
  /** Whether every check agrees and the home said with what help: what may be judged in bulk. */
  plain: boolean
}
/**
 * What the checks of a reply come to: a proposal with its reason; a person decides. Null where nothing could be
 * checked. One wrong answer may be a slip until more is known: "nearly"; "not yet" takes two, and more wrong than right.
 */
export function propose(checks: readonly Check[], help: Help | null, way: Rung | null): Proposal | null {
  const right = checks.filter((c) => c.verdict === 'right').length
  const wrong = checks.filter((c) => c.verdict === 'wrong').length
  const doubtful = checks.filter((c) => c.verdict === 'look').length
  const said = right + wrong
  if (!said) return null
  const withHelp = help ?? 'nudged'
  const words = `${right} of ${said} right, ${help ?? 'help not said'}${doubtful ? `, ${doubtful} for your eye` : ''}`
  const level: Level =
    wrong === 0
      ? withHelp === 'together'
        ? 'nearly'
        : 'secure'
      : wrong > 1 && wrong > right
        ? 'not yet'
        : 'nearly'
  return {
    level,
    help: withHelp,
    rung: way,
    because: words,
    plain: wrong === 0 && doubtful === 0 && help !== null && way !== null,
  }
}
