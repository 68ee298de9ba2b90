import * as agreement from './agreement.ts'
import * as classes from './classes.ts'
import * as cut from './cut.ts'
import * as film from './film.ts'
import * as home from './home.ts'
import * as homes from './homes.ts'
import * as keep from './keep.ts'
import * as jobs from './jobs.ts'
import * as lessons from './lessons.ts'
import * as live from './live.ts'
import * as look from './look.ts'
import * as next from './next.ts'
import * as people from './people.ts'
import * as plan from './plan.ts'
import * as post from './post.ts'
import * as progress from './progress.ts'
import * as record from './record.ts'
import type { Route } from './route.ts'
import * as send from './send.ts'
import * as setUp from './set-up.ts'
import * as settings from './settings.ts'
import * as shelf from './shelf.ts'
import * as week from './week.ts'

const rooms = {
  people,
  classes,
  homes,
  record,
  setUp,
  settings,
  shelf,
  lessons,
  plan,
  week,
  film,
  jobs,
  keep,
  cut,
  send,
  post,
  home,
  live,
  look,
  agreement,
  progress,
  next,
}
/** Modules list what they export in an order of their loader's. */
const byName = ([a]: [string, unknown], [b]: [string, unknown]): number => (a < b ? -1 : 1)
const isRoute = (value: unknown): value is Route =>
  typeof value === 'object' && value !== null && 'method' in value && 'response' in value && 'who' in value

/** Every call there is, with the room it belongs to and its name: what the API's document is made from. */
export const allRoutes: readonly { room: string; name: string; route: Route }[] = Object.entries(
  rooms,
).flatMap(([room, exports]) =>
  Object.entries(exports)
    .sort(byName)
    .flatMap(([name, value]) => {
      const route: unknown = value
      return isRoute(route) ? [{ room, name, route }] : []
    }),
)
