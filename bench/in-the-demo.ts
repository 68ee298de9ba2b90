import type { Page } from 'playwright-core'
import type { Lesson } from '@awlbox/core/contracts/lesson'

/** Signs in to the running demo and makes a lesson of the document; gives its id. */
export async function makeLesson(page: Page, address: string, doc: Lesson, day: string): Promise<string> {
  await page.goto(`${address}/sign-in`)
  return page.evaluate(
    async ({ doc, day }) => {
      const headers = { 'content-type': 'application/json' }
      await fetch('/api/sign-in', {
        method: 'POST',
        headers,
        body: JSON.stringify({ email: 'marnie@cobblegate.example', password: 'bobbin-parcels' }),
      })
      const shelf = (await (await fetch('/api/shelf')).json()) as { classes: { id: string }[] }
      const made = await fetch(`/api/classes/${shelf.classes[0]!.id}/lessons`, {
        method: 'POST',
        headers,
        body: JSON.stringify({ day, doc }),
      })
      return ((await made.json()) as { id: string }).id
    },
    { doc, day },
  )
}

interface Timed {
  times: number[]
}
/** From now on the page notes how long each key press takes until what it changed is painted. */
export const timeKeys = (page: Page): Promise<void> =>
  page.evaluate(() => {
    const times: number[] = []
    Object.assign(window, { times })
    const channel = new MessageChannel()
    let began = 0
    // A message sent from a frame's start is heard once that frame has been painted.
    channel.port1.onmessage = () => times.push(performance.now() - began)
    document.addEventListener(
      'keydown',
      (e) => {
        began = e.timeStamp
        requestAnimationFrame(() => channel.port2.postMessage(0))
      },
      true,
    )
  })
/** The milliseconds noted so far. */
export const keyTimes = (page: Page): Promise<number[]> =>
  page.evaluate(() => (window as unknown as Timed).times)
/** Presses a key and waits until what it changed is painted; gives the milliseconds. */
export async function pressed(page: Page, key: string): Promise<number> {
  const before = (await keyTimes(page)).length
  await page.keyboard.press(key)
  await page.waitForFunction((k) => (window as unknown as Timed).times.length > k, before)
  return (await keyTimes(page)).at(-1)!
}
