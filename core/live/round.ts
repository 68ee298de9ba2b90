/** How far a round is: thinking, open to answers, three-two-one, shown. */
export type RoundMoment = 'thinking' | 'open' | 'counting' | 'shown'

/** Where a round is at `at`, in ms by the server's clock. One that was closed early is shown: nothing more is asked. */
export const momentOf = (r: { opens: number; shows: number | null }, at: number): RoundMoment =>
  r.shows !== null ? (at < r.shows ? 'counting' : 'shown') : at < r.opens ? 'thinking' : 'open'
/** Share, 0–1, of the thinking that is over. */
export const thoughtOf = (r: { began: number; opens: number }, at: number): number =>
  Math.max(0, Math.min(1, (at - r.began) / Math.max(1, r.opens - r.began)))
