import type { Level } from '../contracts/reply.ts'

/** What was answered or judged, ready to be written as a statement of the Experience API (xAPI 1.0.3). */
export interface Stated {
  id: string
  /** ISO 8601. */
  at: string
  childId: string
  ideaId: string
  idea: string
  lesson: string
  words: string
  right: boolean | null
  level: Level | null
  help: string
  rung: string
}
const verbs = {
  answered: { id: 'http://adlnet.gov/expapi/verbs/answered', display: { 'en-GB': 'answered' } },
  scored: { id: 'http://adlnet.gov/expapi/verbs/scored', display: { 'en-GB': 'was judged' } },
} as const
const scaled: Record<Exclude<Level, "can't tell">, number> = { secure: 1, nearly: 0.6, 'not yet': 0.2 }

/** One statement; `home` is an address of the setting's own, under which children have made-up account names. */
export function statementOf(s: Stated, home: string): object {
  const judged = s.level !== null
  return {
    id: s.id,
    timestamp: s.at,
    actor: { objectType: 'Agent', account: { homePage: home, name: s.childId } },
    verb: judged ? verbs.scored : verbs.answered,
    object: {
      objectType: 'Activity',
      id: `${home}/ideas/${s.ideaId}`,
      definition: { name: { 'en-GB': s.idea }, description: { 'en-GB': s.words } },
    },
    result: {
      ...(s.right === null ? {} : { success: s.right }),
      ...(s.level === null || s.level === "can't tell" ? {} : { score: { scaled: scaled[s.level] } }),
      extensions: {
        [`${home}/help`]: s.help,
        [`${home}/rung`]: s.rung,
        ...(s.level ? { [`${home}/level`]: s.level } : {}),
      },
    },
    context: { platform: 'Awlbox', extensions: { [`${home}/lesson`]: s.lesson } },
  }
}
