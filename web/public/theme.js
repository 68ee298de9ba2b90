// Before the first paint, so that a dark room stays dark.
try {
  var theme = localStorage.getItem('awlbox-theme')
  if (theme === 'dark' || theme === 'light') document.documentElement.dataset.theme = theme
} catch {
  // Storage may be closed to us: the system's choice then holds.
}
