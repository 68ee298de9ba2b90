/** How things one presses look on this page: large, and told by more than colour. */
export const tile = (on: boolean): string =>
  `min-h-13 min-w-13 rounded-lg border-2 px-3 font-child text-[20px] disabled:opacity-40 ${on ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`
export const field =
  'min-h-13 rounded-lg border-2 border-ink bg-card text-center font-child text-[22px] font-bold min-w-0'
export const press = (on: boolean): string =>
  `min-h-12 rounded-lg border-2 font-semibold ${on ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`
export const box = 'rounded-xl border border-hair bg-card px-4'
export const summary = 'min-h-12 grid items-center font-semibold cursor-pointer'
