import { expect, type Page, test } from '@playwright/test'
import { openLink } from './home-link.ts'

async function signIn(page: Page): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('Email').fill('marnie@cobblegate.example')
  await page.getByLabel('Password').fill('bobbin-parcels')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Pages' })).toBeVisible()
}
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
  const { items } = (await (await page.request.get(`/api/lessons/${id}/replies?waiting=1`)).json()) as {
    items: { id: string; child: string; childId: string }[]
  }
  const reply = items[0]!
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
