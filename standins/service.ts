import http from 'node:http'
import { z } from 'zod'
import { HouseStyle } from '@awlbox/core/contracts/house-style'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { LiveStreetOrder, StandInOrder, StreetOrder } from '@awlbox/core/contracts/stand-in'
import { filmBeats } from './camera/film.ts'
import { CannotSlip } from './camera/slips.ts'
import { planTake } from './camera/takes.ts'
import { joinLive } from './homes/live.ts'
import { letTheStreetReply } from './homes/street.ts'

const FilmOrder = StandInOrder.extend({ lesson: Lesson, segmentId: z.string(), style: HouseStyle })
const port = Number(process.env.AWLBOX_CAMERA_PORT ?? 4190)

interface Given {
  type: string
  body: Buffer | string
}
/** What stands in for things outside, by address: a camera that films a script, a street of homes that replies or joins live. */
const doors: Record<string, (order: unknown) => Promise<Given>> = {
  '/film': async (asked) => {
    const order = FilmOrder.parse(asked)
    const { beats } = planTake(order.lesson, order.segmentId, order.style, order.slips, {
      seed: order.seed,
      habits: order.habits,
    })
    const film = await filmBeats(beats, order.voice, order.style.frameFill, order.room)
    return { type: 'video/mp4', body: film }
  },
  '/street': async (asked) => {
    const walked = await letTheStreetReply({ ...StreetOrder.parse(asked), atOnce: 4 })
    return { type: 'application/json', body: JSON.stringify({ by: walked.by, failed: walked.failed.length }) }
  },
  '/live': (asked) => {
    // They stay until the lesson is over; who asked does not wait for that.
    void joinLive(LiveStreetOrder.parse(asked)).catch((error: unknown) => console.error(error))
    return Promise.resolve({ type: 'application/json', body: '{"joined":true}' })
  },
}

/** A camera, a voice and a street of homes behind HTTP. */
const server = http.createServer((req, res) => {
  const door = req.method === 'POST' ? doors[req.url ?? ''] : undefined
  if (!door) {
    res.writeHead(404).end()
    return
  }
  const chunks: Buffer[] = []
  req.on('data', (c: Buffer) => chunks.push(c))
  req.on('end', () => {
    void (async () => {
      try {
        const { type, body } = await door(JSON.parse(Buffer.concat(chunks).toString('utf8')))
        res.writeHead(200, { 'Content-Type': type, 'Content-Length': Buffer.byteLength(body) }).end(body)
      } catch (error) {
        const known = error instanceof CannotSlip
        res
          .writeHead(known ? 422 : 500, { 'Content-Type': 'text/plain; charset=utf-8' })
          .end(known ? error.message : 'the stand-in failed; see its log')
        if (!known) console.error(error)
      }
    })()
  })
})
server.listen(port, '127.0.0.1', () => process.send?.('ready'))
const stop = () => {
  server.closeAllConnections()
  server.close(() => process.exit(0))
}
process.on('SIGTERM', stop)
process.on('SIGINT', stop)
process.on('disconnect', stop)
