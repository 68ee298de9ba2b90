import { type Facts, type NextAct, type Place, type Sewn } from '../contracts/api/lessons.ts'

/** Default minutes of a teacher's work per film minute, and per reply; a teacher's own history replaces them. */
export const workRates = { writing: 6, filming: 3, cutting: 4, sending: 2, look: 1.5, perFinding: 2 } as const

/** What of a lesson's facts says how far it is. */
export type LessonFacts = Omit<
  Facts,
  'lastFilmSeconds' | 'sentAt' | 'oldestWaiting' | 'liveAt' | 'liveGiven'
> & { liveAt?: unknown; liveGiven?: number }

/** The one next act of a lesson and the minutes it will take (at least one). */
export function nextAct(f: LessonFacts): NextAct {
  const m = f.filmSeconds / 60
  const act = (station: Place, label: string, minutes: number): NextAct => ({
    station,
    label,
    minutes: Math.max(1, Math.round(minutes)),
  })
  if (f.segments === 0) return act('plan', 'Choose examples', 8)
  if (f.findings > 0 && f.filmed === 0)
    return act(
      'script',
      f.findings === 1 ? 'Mend 1 finding' : `Mend ${f.findings} findings`,
      f.findings * workRates.perFinding,
    )
  if (f.sent && f.replies > f.looked) {
    const n = f.replies - f.looked
    return act('look', n === 1 ? 'Look at 1 reply' : `Look at ${n} replies`, n * workRates.look)
  }
  if (f.sent) return f.replies ? act('next', 'See who needs what', 5) : act('send', 'Wait for replies', 1)
  // With a time to give it live, and nothing filmed, the film need not be.
  if (f.liveAt && f.filmed === 0) return act('live', 'Teach it live', m + 5)
  if (f.filmed < f.segments) {
    const n = f.segments - f.filmed
    return act(
      'film',
      n === 1 ? 'Film 1 segment' : `Film ${n} segments`,
      (m * workRates.filming * n) / f.segments,
    )
  }
  if (!f.rendered)
    return f.proposedDrops
      ? act(
          'cut',
          f.proposedDrops === 1 ? 'Accept 1 drop' : `Accept ${f.proposedDrops} drops`,
          m * workRates.cutting,
        )
      : act('cut', 'Cut and render', m * workRates.cutting)
  return act('send', 'Send', workRates.sending)
}

/** How far each station of a lesson is: 0 empty, 0.5 part sewn, 1 sewn. */
export function sewn(f: LessonFacts): Sewn {
  return {
    plan: f.segments > 0 ? 1 : 0,
    script: f.segments === 0 ? 0 : f.findings > 0 ? 0.5 : 1,
    film: f.filmed === 0 ? 0 : f.filmed < f.segments ? 0.5 : 1,
    cut: f.rendered ? 1 : f.filmed > 0 && f.filmed === f.segments ? 0.5 : 0,
    send: f.sent ? 1 : 0,
    look: f.replies === 0 ? 0 : f.looked < f.replies ? 0.5 : 1,
    next: f.looked > 0 && f.looked === f.replies ? 1 : 0,
  }
}

/**
 * Why a lesson's next act is for this evening, in words. `days`: from today to the day it goes out, below zero once
 * that is past; `waited`: days the oldest reply has waited, null when none waits.
 */
export function reasonFor(station: Place, days: number, waited: number | null, filmSeconds: number): string {
  if (station === 'look' && waited !== null)
    return waited > 0 ? `The oldest has waited ${waited} ${waited === 1 ? 'day' : 'days'}` : 'Sent today'
  const when =
    days < 0
      ? `It was for ${-days} ${days === -1 ? 'day' : 'days'} ago`
      : days === 0
        ? 'It goes out today'
        : days === 1
          ? 'It goes out tomorrow'
          : `It goes out in ${days} days`
  return station === 'film'
    ? `${when}; cutting takes about ${Math.round((filmSeconds / 60) * workRates.cutting)} min after`
    : when
}
