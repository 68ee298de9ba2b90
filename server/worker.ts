import { renderFilm } from './cut/jobs.ts'
import { filmSegment } from './film/film-segment.ts'
import { finishLeftOver } from './film/finish-upload.ts'
import { prepareTake } from './film/prepare.ts'
import { uploadStore } from './film/uploads.ts'
import { backUpWhenDue } from './keep/nightly.ts'
import { tidy } from './keep/daily.ts'
import { readStale, readStoredPhoto } from './look/read-photo.ts'
import { openServices } from './open-services.ts'
import { readConfig } from './platform/config.ts'
import { forLog, log } from './platform/log.ts'
import { postRound } from './post/letters.ts'
import { sweepFolders } from './platform/temporary.ts'
import { onStop } from './platform/on-stop.ts'

const services = await openServices(readConfig())
await services.queue.work({
  film: (w) => filmSegment(services, w),
  take: (w) => prepareTake(services, w),
  render: (w) => renderFilm(services, w),
  photo: (w) => readStoredPhoto(services, w),
})
// What killed processes left lying in the folder for temporary files.
await sweepFolders().catch((error: unknown) => log.warn({ error: forLog(error) }, 'temporary folders'))
log.info('worker ready')
process.send?.('ready')
/** Photos whose reading was lost, or is of an older reader, are looked for from time to time (milliseconds). */
const staleEvery = 60_000
const lookForStale = () =>
  readStale(services).catch((error: unknown) => log.warn({ error: forLog(error) }, 'stale photos'))
await lookForStale()
await finishLeftOver(services, uploadStore(services)).catch((error: unknown) =>
  log.warn({ error: forLog(error) }, 'uploads left over'),
)
const timer = setInterval(() => void lookForStale(), staleEvery)
const tidyUp = () => tidy(services).catch((error: unknown) => log.warn({ error: forLog(error) }, 'tidying'))
void tidyUp()
const daily = setInterval(() => void tidyUp(), 86_400_000)
const letters = setInterval(() => void postRound(services), 30_000)
const nightly = setInterval(() => void backUpWhenDue(services), 20_000)
onStop(() => {
  clearInterval(timer)
  clearInterval(daily)
  clearInterval(nightly)
  clearInterval(letters)
  return services.close()
})
