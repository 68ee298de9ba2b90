import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { expect, type Page, test } from '@playwright/test'
import { signIn } from './sign-in.ts'
import { standInPhoto } from '../standins/homes/photo.ts'
import { barriers } from './barriers.ts'
import { openLink } from './home-link.ts'

interface Reply {
  childId: string
  answers: { photoId?: string | null; text?: string | null }[]
  photos: { id: string }[]
  words: string
}
/** A lesson that was sent and asks for a photo, a home that has not replied to it, and how to see what came. */
async function sentLesson(page: Page) {
  const { lessons } = (await (await page.request.get('/api/shelf')).json()) as {
    lessons: { id: string; facts: { sent: boolean } }[]
  }
  for (const { id } of lessons.filter((l) => l.facts.sent)) {
    const sent = (await (await page.request.get(`/api/lessons/${id}/send`)).json()) as {
      pack: { title: string; tasks: { spec: { kind: string } }[] }
      homes: { householdId: string; childId: string; replied: string | null }[]
    }
    const home = sent.homes.find((h) => !h.replied)
    if (!home || !sent.pack.tasks.some((t) => t.spec.kind === 'photo')) continue
    const replies = async () =>
      (
        (await (await page.request.get(`/api/lessons/${id}/replies`)).json()) as { items: Reply[] }
      ).items.filter((r) => r.childId === home.childId)
    return { id, home, title: sent.pack.title, replies, link: await openLink(page, home.householdId) }
  }
  throw new Error('No lesson of the demo is sent and still unanswered by a home')
}

test('a home with no connection opens its page, answers with a photo, closes it; all of it arrives once', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const { link, title, replies, id } = await sentLesson(page)
  const lessons = (await (await page.request.get(`/api/home/${link.slice(3)}`)).json()) as {
    packs: { id: string; title: string }[]
  }
  const packId = lessons.packs.find((p) => p.title === title)!.id
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, hasTouch: true })
  await context.addCookies([{ name: 'awlbox_language', value: 'en', url: new URL(page.url()).origin }])
  const phone = await context.newPage()
  await phone.goto(`${link}?lesson=${packId}`)
  await expect(phone.getByRole('heading', { name: title })).toBeVisible()
  // Once its worker has the page.
  await phone.evaluate(() => navigator.serviceWorker.ready)
  const kept = () =>
    phone.evaluate(async () => {
      const keys = (await (await caches.open('awlbox-pages')).keys()).map((r) => new URL(r.url).pathname)
      return [keys.some((k) => k.startsWith('/h/')), keys.some((k) => /^\/assets\/home-.*js$/.test(k))]
    })
  await expect.poll(kept).toEqual([true, true])
  await context.setOffline(true)
  await phone.reload()
  await expect(phone.getByRole('heading', { name: title })).toBeVisible()
  await expect(phone.getByText(/^No connection\. This is the page/)).toBeVisible()
  const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-home-'))
  const jpeg = path.join(folder, 'table.jpg')
  fs.writeFileSync(jpeg, await standInPhoto({ saffron: 4, blue: 1, seed: 8, ground: 'plain' }))
  await phone.getByLabel('Take a photo', { exact: true }).setInputFiles(jpeg)
  await expect(phone.getByText('It waits on this phone.')).toBeVisible()
  await phone.getByLabel('Anything to tell?').fill('Done on the train')
  await phone.getByRole('button', { name: 'With a nudge' }).click()
  await phone.getByRole('button', { name: 'Send', exact: true }).click()
  await expect(phone.getByText(/^No connection\. It is kept/)).toBeVisible()
  // Closed and opened again, still away: nothing is lost.
  await phone.close()
  const again = await context.newPage()
  await again.goto(link)
  await expect(again.getByLabel('Anything to tell?')).toHaveValue('Done on the train')
  await expect(again.getByText(/^No connection\. It is kept/)).toBeVisible()
  expect(await replies()).toEqual([])
  await context.setOffline(false)
  await expect(again.getByText(/^Received/)).toBeVisible()
  const came = await replies()
  expect([came.length, came[0]!.words, came[0]!.photos.length]).toEqual([1, 'Done on the train', 1])
  // Sent again it is the same reply, and the photo is not sent twice.
  await again.getByRole('button', { name: 'Send again' }).click()
  await expect(again.getByText(/^Received/)).toBeVisible()
  expect((await replies()).map((r) => r.photos.map((p) => p.id))).toEqual([came[0]!.photos.map((p) => p.id)])
  // A link that is ended no longer opens what was kept of it.
  const { homes } = (await (await page.request.get(`/api/lessons/${id}/send`)).json()) as {
    homes: { householdId: string; link: string }[]
  }
  await openLink(page, homes.find((h) => h.link === link)!.householdId)
  await again.goto(link)
  await expect(again.getByRole('alert')).toContainText('no longer in use')
  await expect
    .poll(() =>
      again.evaluate(async (at) => (await (await caches.open('awlbox-pages')).match(at)) === undefined, link),
    )
    .toBe(true)
  await context.close()
})

test('the page in a language that runs from right to left: narrow, dark, for all, and remembered', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const { link, title } = await sentLesson(page)
  const context = await browser.newContext({ viewport: { width: 320, height: 700 } })
  const phone = await context.newPage()
  await phone.goto(link)
  await phone.getByRole('combobox', { name: /Language|Idioma|Język/ }).selectOption('ar')
  await expect(phone.locator('html')).toHaveAttribute('dir', 'rtl')
  await expect(phone.getByRole('heading', { name: title })).toBeVisible()
  await expect(phone.getByRole('button', { name: 'إرسال' })).toBeVisible()
  for (const colorScheme of ['light', 'dark'] as const) {
    await phone.emulateMedia({ colorScheme })
    expect(await phone.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)).toBe(0)
    expect(await barriers(phone)).toEqual([])
  }
  // What was written in another language’s figures is read, and said in them.
  const number = phone.getByRole('textbox').first()
  await number.fill('7 طرود')
  await expect(phone.getByText('قُرئ ٧')).toBeVisible()
  await phone.reload()
  await expect(phone.locator('html')).toHaveAttribute('lang', 'ar')
  await phone.getByRole('combobox', { name: 'اللغة' }).selectOption('en')
  await expect(phone.getByRole('button', { name: /^Send/ })).toBeVisible()
  await context.close()
})

test('a code shown on one device opens the page on another', async ({ page, browser }) => {
  await signIn(page)
  const { link, title } = await sentLesson(page)
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
  await context.addCookies([{ name: 'awlbox_language', value: 'en', url: new URL(page.url()).origin }])
  const one = await context.newPage()
  await one.goto(link)
  await one.getByText('Open it on another device').click()
  await one.getByRole('button', { name: 'Show a code' }).click()
  const code = await one.getByText(/^[A-Z0-9]{4} [A-Z0-9]{4}$/).innerText()
  const other = await browser.newPage({ viewport: { width: 390, height: 844 } })
  await other.goto('/code')
  await other.getByRole('textbox').fill(code.toLowerCase())
  await other.getByRole('button', { name: 'Open' }).click()
  await expect(other).toHaveURL(new RegExp(`${link}$`))
  expect(title.length).toBeGreaterThan(0)
  await context.close()
  await other.close()
})
