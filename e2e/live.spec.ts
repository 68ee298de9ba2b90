import { type BrowserContext, expect, type Page, test } from '@playwright/test'
import { signIn } from './sign-in.ts'

/** A lesson of one question, a stop and a goodbye, made for its class as any lesson is. */
const doc = (like: Record<string, unknown>) => ({
  ...like,
  title: 'Seven parcels, live',
  segments: [
    {
      id: 'hello',
      title: 'Hello',
      kind: 'hook',
      audience: 'children',
      steps: [{ id: 'h1', verb: 'say', text: 'Hello from Bobbin.' }],
    },
    {
      id: 'ask',
      title: 'How many parcels',
      kind: 'show',
      audience: 'children',
      steps: [
        { id: 'a1', verb: 'do', text: 'Put 7 on the frame' },
        { id: 'a2', verb: 'ask', text: 'How many parcels are there?', task: { kind: 'number', answer: 7 } },
        { id: 'a3', verb: 'wait', text: '12 s' },
        { id: 'a4', verb: 'say', text: 'Seven parcels.' },
      ],
    },
    {
      id: 'bye',
      title: 'Goodbye',
      kind: 'close',
      audience: 'children',
      steps: [{ id: 'b1', verb: 'say', text: 'Goodbye, posties.' }],
    },
  ],
})

/** A home's phone, come in to the live lesson by its usual link. */
async function comesIn(context: BrowserContext, link: string): Promise<Page> {
  const { baseURL } = test.info().project.use
  await context.addCookies([{ name: 'awlbox_language', value: 'en', url: baseURL! }])
  const page = await context.newPage()
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(link)
  await page.getByRole('button', { name: 'Come in' }).click()
  await expect(page.getByText('You are in.')).toBeVisible()
  return page
}
async function shows(page: Page, digits: string): Promise<void> {
  for (const d of digits) await page.getByRole('button', { name: d, exact: true }).click()
}

test('a lesson given live: three homes, a desk, a window to share, a line that drops, and what is left of it', async ({
  page,
  browser,
}) => {
  test.setTimeout(600_000)
  await signIn(page)
  const shelf = (await (await page.request.get('/api/shelf')).json()) as {
    classes: { id: string; name: string }[]
    lessons: { id: string; classId: string }[]
  }
  const cls = shelf.classes.find((c) => c.name === 'Wagtails')!
  const like = shelf.lessons.find((l) => l.classId === cls.id)!
  const known = (await (await page.request.get(`/api/lessons/${like.id}`)).json()) as {
    doc: Record<string, unknown>
  }
  const made = await page.request.post(`/api/classes/${cls.id}/lessons`, {
    data: { day: new Date().toISOString().slice(0, 10), doc: doc(known.doc) },
  })
  const { id: lessonId } = (await made.json()) as { id: string }

  // Set for now, from the lesson's own page.
  await page.goto(`/lessons/${lessonId}/live`)
  await expect(page.getByText('become 1 round')).toBeVisible()
  const now = new Date(Date.now() + 60_000)
  await page.getByLabel('Day', { exact: true }).last().fill(now.toLocaleDateString('en-GB'))
  await page.getByLabel('Begins at').fill(now.toTimeString().slice(0, 5))
  await page.getByRole('button', { name: 'Set this time' }).click()
  await page.getByRole('link', { name: 'To the desk' }).click()
  await expect(page.getByRole('button', { name: 'Begin' })).toBeVisible()
  const desk = page

  const { homes } = (await (await page.request.get(`/api/lessons/${lessonId}/send`)).json()) as {
    homes: { link: string | null; child: string }[]
  }
  const three = homes.filter((h) => h.link).slice(0, 3)
  const contexts = await Promise.all(three.map(() => browser.newContext()))
  const phones = await Promise.all(three.map((h, i) => comesIn(contexts[i]!, h.link!)))
  await expect(desk.getByText('3 of ')).toBeVisible()

  const [shared] = await Promise.all([
    desk.waitForEvent('popup'),
    desk.getByRole('button', { name: 'Open it' }).click(),
  ])
  await expect(shared.getByText('Seven parcels, live')).toBeVisible()

  // One key to go on: begin, the hands, the question.
  await desk.keyboard.press('Space')
  for (const p of phones) await expect(p.getByText('Hello from Bobbin.')).toBeVisible()
  // A key pressed before the desk knows that it began is the same press twice: homes may know sooner.
  await expect(desk.getByRole('button', { name: 'Go on' })).toBeVisible()
  await desk.keyboard.press('Space')
  await expect(desk.getByRole('application', { name: /ten frame: 7 saffron/ })).toBeVisible()
  await desk.keyboard.press('Space')
  await expect(desk.getByRole('button', { name: 'Ask it' })).toBeVisible()
  await expect(shared.getByRole('img', { name: /ten frame: 7 saffron/ })).toBeVisible()
  await desk.keyboard.press('Space')
  // Thinking first: nothing can be sent.
  await expect(phones[0]!.getByText('Think first')).toBeVisible()
  await expect(phones[0]!.getByRole('button', { name: 'Ready' })).toBeHidden()
  await expect(desk.getByRole('button', { name: /They are thinking/ })).toBeDisabled()
  await shows(phones[0]!, '7')
  await phones[0]!.getByRole('button', { name: 'Ready' }).click()
  await expect(phones[0]!.getByText('You can change it')).toBeVisible()
  // One has begun and not said that it is ready; one has lost its line, and answers all the same.
  await shows(phones[1]!, '6')
  await contexts[2]!.setOffline(true)
  await shows(phones[2]!, '8')
  await phones[2]!.getByRole('button', { name: 'Ready' }).click()
  await expect(phones[2]!.getByText('It is kept on this phone')).toBeVisible()
  await expect(desk.getByText('ready 1')).toBeVisible()
  // Nobody sees an answer before all do.
  await expect(desk.getByText('All at once')).toBeHidden()
  await desk.getByRole('button', { name: 'Three, two, one, show' }).click()
  await expect(phones[0]!.getByText('Show it')).toBeVisible()
  const round = desk.getByRole('region', { name: 'The round' })
  await expect(round.getByText('All at once: How many parcels are there?')).toBeVisible()
  await expect(round.getByRole('button', { name: /^7.*1.*right/ })).toBeVisible()
  // What was begun went by itself, and tells why it may be wrong.
  await expect(round.getByRole('button', { name: /^6/ })).toBeVisible()
  await expect(round.getByText(/^perhaps/).first()).toBeVisible()
  await expect(shared.getByText(three[0]!.child)).toBeHidden()
  // Past what a slow connection is allowed, the line is back: its answer comes late, and counts.
  const live = desk.url().split('/').at(-1)!
  await expect
    .poll(async () => {
      const { now, state } = (await (await desk.request.get(`/api/live/${live}`)).json()) as {
        now: number
        state: { rounds: { shows: number | null }[] }
      }
      return now - state.rounds.at(-1)!.shows!
    })
    .toBeGreaterThan(2000)
  await contexts[2]!.setOffline(false)
  await expect(round.getByText(/Late, and counted/)).toBeVisible()
  await expect(phones[2]!.getByText('It came a little late, and it counts.')).toBeVisible()

  // The desk is reloaded in place, in the middle of it.
  await desk.reload()
  await expect(desk.getByText('All at once: How many parcels are there?')).toBeVisible()
  await expect(desk.getByRole('button', { name: 'Go on' })).toBeEnabled()
  // A second desk watches, and may take over.
  const second = await desk.context().newPage()
  await second.goto(desk.url())
  await expect(second.getByText('You are watching.')).toBeVisible()
  await second.close()
  await desk.keyboard.press('m')
  await desk.getByLabel('What happened').fill('Two counted on')
  await desk.keyboard.press('Enter')
  await desk.getByRole('button', { name: 'End', exact: true }).click()
  await desk.getByRole('button', { name: 'End it' }).click()
  await expect(desk.getByRole('heading', { name: /The live lesson took/ })).toBeVisible()
  await expect(desk.getByText('Two counted on')).toBeVisible()
  await expect(desk.getByText('We met live on')).toBeVisible()
  for (const p of phones) await expect(p.getByText('That was all for today.')).toBeVisible()
  // It is looked at where every reply is.
  await desk.getByRole('link', { name: 'Look at what was given' }).click()
  await expect(desk.getByText(three[0]!.child).first()).toBeVisible()
  await Promise.all(contexts.map((c) => c.close()))
})
