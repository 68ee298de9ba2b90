import type { Locator, Page } from '@playwright/test'

/** Chooses from a list that opens, by its words. */
export async function choose(scope: Page | Locator, label: string, words: string | RegExp): Promise<void> {
  await scope.getByLabel(label).first().click()
  const page = 'page' in scope ? scope.page() : scope
  await page
    .getByRole('option', typeof words === 'string' ? { name: words, exact: true } : { name: words })
    .click()
}
