import '@fontsource-variable/atkinson-hyperlegible-next'
import { setNonce } from 'get-nonce'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { askAhead } from './api/ahead'
import { FIRST_MS } from './api/batches'
import { knowsSomebody, queries, takeUp } from './api/kept'
import { listen } from './api/live'
import { App } from './shell/App'
import { keepThePage, reloadForNewBuilds } from './shell/builds'
import { applyLoudness } from './shared/loudness'
import { wearTheme } from './shared/theme'
import './styles.css'

// The library that keeps the page still behind a sheet writes a style; the page's policy knows it by this.
setNonce(document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content ?? '')
wearTheme()
applyLoudness()
reloadForNewBuilds()
const root = document.getElementById('root')
if (root) {
  void takeUp().then(() => {
    if (knowsSomebody()) {
      listen()
      askAhead(queries, location.pathname)
    }
    createRoot(root).render(
      <StrictMode>
        <App />
      </StrictMode>,
    )
  })
}
// All of it is fetched for that: what is looked at goes first.
if (import.meta.env.PROD) setTimeout(() => void keepThePage(), FIRST_MS)
