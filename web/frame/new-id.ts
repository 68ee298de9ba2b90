/** A short id no other step of the lesson has. */
export const newId = (): string => crypto.randomUUID().slice(0, 13)
