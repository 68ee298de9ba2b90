import { renderFilm } from './cut/jobs.ts'
import { filmSegment } from './film/film-segment.ts'
import { prepareTake } from './film/prepare.ts'
import { openServices } from './open-services.ts'
import { log } from './platform/log.ts'
import { onStop } from './platform/on-stop.ts'

const services = await openServices()
await services.queue.work({
  film: (w) => filmSegment(services, w),
  take: (w) => prepareTake(services, w),
  render: (w) => renderFilm(services, w),
})
log.info('worker ready')
process.send?.('ready')
onStop(() => services.close())
