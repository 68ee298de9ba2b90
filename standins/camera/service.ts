import http from 'node:http'
import { z } from 'zod'
import { HouseStyle } from '@awlbox/core/contracts/house-style'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { StandInOrder } from '@awlbox/core/contracts/stand-in'
import { filmBeats } from './film.ts'
import { CannotSlip } from './slips.ts'
import { planTake } from './takes.ts'

const Order = StandInOrder.extend({ lesson: Lesson, segmentId: z.string(), style: HouseStyle })
const port = Number(process.env.AWLBOX_CAMERA_PORT ?? 4190)

/** A camera and a voice behind HTTP: POST /film with a lesson and a segment answers with the take as an MP4. */
const server = http.createServer((req, res) => {
  if (req.method !== 'POST' || req.url !== '/film') {
    res.writeHead(404).end()
    return
  }
  const chunks: Buffer[] = []
  req.on('data', (c: Buffer) => chunks.push(c))
  req.on('end', () => {
    void (async () => {
      try {
        const order = Order.parse(JSON.parse(Buffer.concat(chunks).toString('utf8')))
        const { beats } = planTake(order.lesson, order.segmentId, order.style, order.slips, {
          seed: order.seed,
          habits: order.habits,
        })
        const film = await filmBeats(beats, order.voice, order.style.frameFill, order.room)
        res.writeHead(200, { 'Content-Type': 'video/mp4', 'Content-Length': film.length }).end(film)
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
