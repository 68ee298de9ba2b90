import { expect, type Page, test } from '@playwright/test'
import { signIn } from './sign-in.ts'
import { standInPhoto } from '../standins/homes/photo.ts'
import { choose } from './choose.ts'
import { openLink } from './home-link.ts'

/** The demo's lesson of which some replies wait to be judged. */
async function waiting(page: Page): Promise<string> {
  const { lessons } = (await (await page.request.get('/api/shelf')).json()) as {
    lessons: { id: string; title: string }[]
  }
  return lessons.find((l) => l.title === 'Ten in the egg box')!.id
}

test('replies are judged by keys with a note, one question goes back to its home, words too; the next lesson follows', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const id = await waiting(page)
  const { items } = (await (await page.request.get(`/api/lessons/${id}/replies`)).json()) as {
    items: {
      id: string
      child: string
      childId: string
      judgements: unknown[]
      photos: { reading: { count: number } | null }[]
    }[]
  }
  const reply = items.find((r) => !r.judgements.length)!
  await page.goto(`/lessons/${id}/look?reply=${reply.id}`)
  const answers = page.getByRole('region', { name: 'Answers' })
  await expect(answers).toBeVisible()
  await expect(page.getByText('Proposed:')).toBeVisible()
  await page.getByRole('button', { name: 'Said how they know.' }).click()
  await page.keyboard.press('2')
  await page.keyboard.press('a')
  await page.keyboard.press('7')
  // It has gone on; back to it, where the judgement stands with its note and its help.
  await page.getByRole('list', { name: 'Replies' }).getByRole('button', { name: reply.child }).click()
  await expect(page.getByText('“Said how they know.”')).toBeVisible()
  const looked = items.filter((r) => r.judgements.length).length + 1
  await expect(page.getByRole('link', { name: /^Look \d/ })).toContainText(`${looked} of ${items.length}`)

  await answers.getByRole('button', { name: 'ask again' }).first().click()
  await page.getByLabel('What to say with it').fill('Could you count them once more?')
  await page.getByRole('button', { name: 'Ask this home' }).click()
  await expect(answers.getByText('Asked again: it stands on the home’s page.')).toBeVisible()
  await page.getByRole('button', { name: 'Write to the home' }).click()
  const words = page.getByRole('region', { name: 'Words back' }).getByRole('textbox')
  await expect(words).not.toHaveValue('')
  await words.fill('You moved each one as you counted. Try it with socks.')
  await page.getByRole('button', { name: 'Send to this home' }).click()
  await expect(page.getByRole('region', { name: 'Words back' })).toContainText('Try it with socks.')

  const sent = (await (await page.request.get(`/api/lessons/${id}/send`)).json()) as {
    homes: { householdId: string; childId: string }[]
  }
  const link = await openLink(page, sent.homes.find((h) => h.childId === reply.childId)!.householdId)
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } })
  await context.addCookies([{ name: 'awlbox_language', value: 'en', url: new URL(page.url()).origin }])
  const phone = await context.newPage()
  const { packs } = (await (await page.request.get(`/api/home/${link.slice(3)}`)).json()) as {
    packs: { id: string; title: string }[]
  }
  await phone.goto(`${link}?lesson=${packs.find((p) => p.title === 'Ten in the egg box')!.id}`)
  await expect(phone.getByText('Try it with socks.')).toBeVisible()
  await expect(phone.getByText('Could you count them once more?')).toBeVisible()
  await expect(phone.getByRole('button', { name: /^Send/ })).toBeEnabled()
  await context.close()

  await page.goto(`/children/${reply.childId}/progress`)
  await expect(page.getByRole('region', { name: 'Replies' })).toContainText('Try it with socks.')
  await expect(page.getByRole('region', { name: 'Ideas' })).toContainText('Parts of 10')
  await page.goto(`/lessons/${id}/next`)
  await page.getByRole('button', { name: 'Draft the next lesson' }).click()
  await expect(page.getByRole('heading', { name: 'Carried over from the lessons before' })).toBeVisible()
})

test('a photo is put right by clicks; a colleague judges a sample blind, and the two settle it; pairs; a report', async ({
  page,
  browser,
}) => {
  await signIn(page)
  const id = await waiting(page)
  const { origin } = new URL(page.url())
  const get = async <T>(path: string) => (await (await page.request.get(path)).json()) as T
  type Reply = {
    id: string
    childId: string
    judgements: unknown[]
    tasks: { id: string; spec: { kind: string } }[]
    photos: { reading: { count: number } | null }[]
  }
  const replies = async () => (await get<{ items: Reply[] }>(`/api/lessons/${id}/replies`)).items
  const before = await replies()
  const { homes } = await get<{ homes: { householdId: string; childId: string }[] }>(
    `/api/lessons/${id}/send`,
  )
  const home = homes.find((h) => !before.some((r) => r.childId === h.childId))!

  await test.step('a home that was silent sends a photo', async () => {
    const token = (await openLink(page, home.householdId)).slice(3)
    const { packs } = await get<{ packs: { id: string; title: string }[] }>(`/api/home/${token}`)
    const pack = packs.find((p) => p.title === 'Ten in the egg box')!.id
    const sent = await page.request.post(`/api/home/${token}/packs/${pack}/photos`, {
      headers: { origin },
      multipart: {
        photo: {
          name: 'table.jpg',
          mimeType: 'image/jpeg',
          buffer: await standInPhoto({ saffron: 3, blue: 2, seed: 6, ground: 'wood' }),
        },
      },
    })
    const { id: photoId } = (await sent.json()) as { id: string }
    const task = before[0]!.tasks.find((t) => t.spec.kind === 'photo')!
    const reply = {
      childId: home.childId,
      key: crypto.randomUUID(),
      answers: [{ taskId: task.id, kind: 'photo', photoId }],
      help: 'alone',
      words: '',
    }
    const put = await page.request.put(`/api/home/${token}/packs/${pack}/reply`, {
      headers: { origin },
      data: reply,
    })
    expect(put.status()).toBe(200)
  })
  const mine = async () => (await replies()).find((r) => r.childId === home.childId)!
  await expect.poll(async () => (await mine()).photos[0]?.reading?.count ?? 0, { timeout: 200_000 }).toBe(5)

  await test.step('one ring is no thing, another is missing', async () => {
    await page.goto(`/lessons/${id}/look?reply=${(await mine()).id}`)
    await page.getByRole('button', { name: 'Put right' }).click()
    const photo = page.getByRole('img', { name: 'Photo: 5 things ringed' })
    const box = (await photo.boundingBox())!
    await photo.click({ position: { x: box.width / 2, y: box.height * 0.03 } })
    await expect(page.getByRole('img', { name: 'Photo: 6 things ringed' })).toBeVisible()
    await page.getByRole('button', { name: 'Not a thing' }).click()
    await page.getByRole('combobox', { name: /^Ring/ }).click()
    await page.getByRole('option', { name: /^1, / }).click()
    await page.getByRole('button', { name: 'Not a thing' }).click()
    await page.getByRole('button', { name: 'Keep as it is' }).click()
    await expect(page.getByRole('img', { name: 'Photo: 4 things found' })).toBeVisible()
    await expect(page.getByText('put right by hand')).toBeVisible()
  })

  await test.step('a sample is drawn, judged blind and settled', async () => {
    for (const reply of (await replies()).filter((r) => !r.judgements.length).slice(0, 2)) {
      const judged = await page.request.post(`/api/replies/${reply.id}/judgements`, {
        headers: { origin },
        data: { level: 'secure', help: 'alone', rung: 'things', note: '' },
      })
      expect(judged.status()).toBe(200)
    }
    await page.goto(`/lessons/${id}/look/second`)
    await page.getByRole('spinbutton', { name: 'Replies' }).fill('2')
    await choose(page, 'Judged again by', 'Desh Pellow')
    await page.getByRole('button', { name: 'Draw them' }).click()
    await expect(page.getByText(/0 of 2 judged by Desh Pellow/)).toBeVisible()
    const context = await browser.newContext()
    const colleague = await context.newPage()
    await signIn(colleague, 'desh')
    await colleague.goto(`/lessons/${id}/look/second`)
    for (const n of [1, 2]) {
      await expect(colleague.getByText(new RegExp(`${n} of 2, drawn by Marnie Lund`))).toBeVisible()
      await colleague.keyboard.press('3')
      await colleague.keyboard.press('a')
      await colleague.keyboard.press('7')
    }
    await expect(colleague.getByRole('heading', { name: /Marnie Lund and Desh Pellow/ })).toBeVisible()
    await context.close()
    await page.reload()
    const first = page.getByRole('textbox', { name: /^Why, for/ }).first()
    await first.fill('the second row shows it')
    await page.getByRole('button', { name: 'Nearly' }).first().click()
    await expect(page.getByText(/“the second row shows it”/)).toBeVisible()
  })

  await page.goto(`/lessons/${id}/look/pairs`)
  await expect(page.getByRole('region', { name: 'On the left' })).toBeVisible()
  await page.keyboard.press('l')
  await expect(page.getByText(/^1 compared/)).toBeVisible()
  const report = await page.request.get(`/api/children/${home.childId}/report`)
  expect((await report.body()).subarray(0, 5).toString()).toBe('%PDF-')
})
