import { expect, type Page } from '@playwright/test'

/** Signs in with one of the demo's people. */
export async function signIn(page: Page, who: 'marnie' | 'desh' = 'marnie'): Promise<void> {
  await page.goto('/sign-in')
  await page.getByLabel('Email').fill(`${who}@cobblegate.example`)
  await page.getByLabel('Password').fill('bobbin-parcels')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('navigation', { name: 'Pages' })).toBeVisible()
}
