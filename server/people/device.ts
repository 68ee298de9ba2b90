import Bowser from 'bowser'

/** A browser in words a person knows it by: "Firefox on Android". Empty where it does not say. */
export function deviceOf(userAgent: string | undefined): string {
  if (!userAgent) return ''
  const { browser, os } = Bowser.parse(userAgent.slice(0, 400))
  return [browser.name, os.name].filter(Boolean).join(' on ').slice(0, 80)
}
