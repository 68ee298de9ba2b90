/** For what may fail without changing what the page tells: whoever looks at the browser's console finds it under these words. */
export const noted =
  (what: string) =>
  (error: unknown): undefined => {
    console.log(`${what}: ${String(error)}`)
  }
