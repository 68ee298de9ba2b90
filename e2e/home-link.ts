import { type Page, test } from '@playwright/test'

/** A new private link of a home, as its teacher makes one. */
export async function openLink(page: Page, householdId: string): Promise<string> {
  const { origin } = new URL(test.info().project.use.baseURL!)
  const made = await page.request.post(`/api/households/${householdId}/link`, { headers: { origin } })
  return ((await made.json()) as { link: string }).link
}
