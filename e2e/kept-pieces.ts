import { expect, type Page } from '@playwright/test'

/**
 * Waits until this device keeps at least so many pieces (of a second or more each) of what is being filmed.
 * The page's clock runs ahead of the recorder when the machine is busy; what is kept is what counts.
 */
export async function keepsPieces(page: Page, pieces: number): Promise<void> {
  await expect
    .poll(
      () =>
        page.evaluate(
          () =>
            new Promise<number>((resolve) => {
              const opening = indexedDB.open('awlbox-recordings')
              opening.onerror = () => resolve(0)
              opening.onsuccess = () => {
                const db = opening.result
                const count = db.transaction('chunks').objectStore('chunks').count()
                count.onsuccess = () => {
                  db.close()
                  resolve(count.result)
                }
              }
            }),
        ),
      { timeout: 200_000 },
    )
    .toBeGreaterThanOrEqual(pieces)
}
