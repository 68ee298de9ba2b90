export type Theme = 'system' | 'light' | 'dark'

export const themeNow = (): Theme => {
  const set = document.documentElement.dataset.theme
  return set === 'light' || set === 'dark' ? set : 'system'
}
/** Shows the pages light, dark, or as the device likes it, and remembers that here. */
export function showTheme(theme: Theme): void {
  if (theme === 'system') {
    delete document.documentElement.dataset.theme
    localStorage.removeItem('awlbox-theme')
  } else {
    document.documentElement.dataset.theme = theme
    localStorage.setItem('awlbox-theme', theme)
  }
}
