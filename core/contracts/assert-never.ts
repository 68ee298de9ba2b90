/** Makes a switch over a union exhaustive: the compiler objects when a case is missing. */
export function assertNever(value: never): never {
  throw new Error(`Unexpected value: ${JSON.stringify(value)}`)
}
