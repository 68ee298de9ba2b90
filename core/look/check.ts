/** What an answer comes to. `open`: left blank (a blank is not a nought); `look`: only a person can tell. */
export interface Check {
  verdict: 'right' | 'wrong' | 'open' | 'look'
  /** The answer as it is shown. */
  shown: string
  why: string
}
