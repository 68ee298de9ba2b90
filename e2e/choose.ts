import type { Locator, Page } from '@playwright/test'

/** Chooses from a list that opens, by its words. */
export async function choose(scope: Page | Locator, label: string, words: string | RegExp): Promise<void> {
  await scope.getByLabel(label).first().click()
  const page = 'page' in scope ? scope.page() : scope
  await page
    .getByRole('option', typeof words === 'string' ? { name: words, exact: true } : { name: words })
    .click()
}

/** Moves a slider by so many of its steps, as its keys do. */
export async function slide(scope: Page | Locator, label: string, steps: number): Promise<void> {
  const thumb = scope.getByRole('slider', { name: label })
  for (let i = 0; i < Math.abs(steps); i++) await thumb.press(steps > 0 ? 'ArrowRight' : 'ArrowLeft')
}
