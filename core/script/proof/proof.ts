import { severities } from '../../contracts/finding.ts'
import { type HouseStyle } from '../../contracts/house-style.ts'
import type { Lesson } from '../../contracts/lesson.ts'
import { type Moment, simulate } from '../simulate.ts'
import { type Needed, needed } from '../stock.ts'
import { type LessonTime, timeLesson } from '../time.ts'
import { cautions } from './care-rules.ts'
import { claimedCount, countAgainstTable, countOrder, refused } from './count-rules.ts'
import { eachLine, type Finding, nearLines, type Rule } from './finding.ts'
import { hidden, unaccounted } from './hidden-rules.ts'
import { givenAway, toldBeforeWait } from './early-rules.ts'
import {
  askedLate,
  briefingAnswer,
  challenge,
  choiceAnswers,
  handBack,
  handOver,
  homeTask,
  limits,
  needsLine,
  stock,
  taskAnswers,
  toldAnswers,
} from './lesson-rules.ts'
import { dieChoice, impossible, marked, turnRounds, ways } from './device-rules.ts'
import { device, exampleSet, waysUnsaid } from './plan-rules.ts'
import {
  allNumbers,
  falseSentence,
  falseStatement,
  leftLarger,
  sentenceAgainstTable,
  spokenRun,
  unfairShare,
} from './sentence-rules.ts'
import { answerBeforeWait, unclearedTable, waits } from './teaching-rules.ts'
import { saidAndDone, saidOfTable, storyGoesOn, summedUp, toldAnswer } from './truth-rules.ts'
import {
  countingOn,
  fewer,
  houseWords,
  manners,
  newWords,
  pairsName,
  symbols,
  unknownPlace,
} from './wording-rules.ts'

const rules: readonly Rule[] = [
  eachLine([
    falseSentence,
    falseStatement,
    spokenRun,
    impossible,
    sentenceAgainstTable,
    allNumbers,
    leftLarger,
    countOrder,
    countAgainstTable,
    claimedCount,
    refused,
    houseWords,
    fewer,
    pairsName,
    unknownPlace,
    countingOn,
    manners,
    cautions,
  ]),
  ways,
  dieChoice,
  nearLines([
    toldAnswer,
    storyGoesOn,
    saidOfTable,
    summedUp,
    saidAndDone,
    marked,
    turnRounds,
    givenAway,
    toldBeforeWait,
  ]),
  unfairShare,
  hidden,
  unaccounted,
  waits,
  answerBeforeWait,
  unclearedTable,
  needsLine,
  stock,
  askedLate,
  exampleSet,
  device,
  waysUnsaid,
  challenge,
  homeTask,
  taskAnswers,
  choiceAnswers,
  toldAnswers,
  handOver,
  handBack,
  briefingAnswer,
  limits,
  symbols,
  newWords,
]

export interface Proofed {
  moments: Moment[]
  time: LessonTime
  needs: Needed[]
  /** Wrong first, then risky, then tidy; within each in the order of the script. */
  findings: Finding[]
}

/**
 * Plays, times and proof-reads a lesson: everything the Script screen shows, recomputed whole on every change.
 * `pace`: the teacher's own words a minute, where enough takes have been heard.
 */
export function proofread(lesson: Lesson, style: HouseStyle, pace: number | null = null): Proofed {
  const moments = simulate(lesson)
  const time = timeLesson(lesson, style, moments, pace)
  const needs = needed(lesson, moments)
  const order = new Map(moments.map((m, i) => [m.step.id, i]))
  const findings = rules.flatMap((rule) => rule({ lesson, style, moments, time, needs }))
  findings.sort(
    (a, b) =>
      severities.indexOf(a.severity) - severities.indexOf(b.severity) || place(order, a) - place(order, b),
  )
  return { moments, time, needs, findings }
}
const place = (order: ReadonlyMap<string, number>, f: Finding): number =>
  f.stepId === null ? Infinity : (order.get(f.stepId) ?? Infinity)
