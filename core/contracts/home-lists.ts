/** Lists a home's page needs by themselves, without the schemas that check them elsewhere. */

/** Languages a home's page speaks, all of them complete. */
export const homeLanguages = ['en', 'pl', 'es', 'ar'] as const
export type HomeLanguage = (typeof homeLanguages)[number]

/** What another way is asked for: by a body, a home or a head. */
export const otherWays = ['seated', 'quiet', 'small', 'food', 'device', 'colour', 'hearing'] as const
export type OtherWay = (typeof otherWays)[number]
