type Theme = 'light' | 'dark'

const KEY = 'spissus-theme'

/** The theme the cook chose, or the one the machine asks for. */
export function theme(): Theme {
  const chosen = localStorage.getItem(KEY)
  if (chosen === 'light' || chosen === 'dark') return chosen
  return matchMedia('(prefers-color-scheme: dark)').matches ? 'dark' : 'light'
}

function applyTheme(): void {
  document.documentElement.dataset.theme = theme()
}

/** The page wears it from now on, and goes with the machine for as long as nobody chose. */
export function wearTheme(): void {
  applyTheme()
  matchMedia('(prefers-color-scheme: dark)').addEventListener('change', applyTheme)
}

export function switchTheme(): void {
  localStorage.setItem(KEY, theme() === 'dark' ? 'light' : 'dark')
  applyTheme()
}
