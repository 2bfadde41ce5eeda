import '@fontsource-variable/atkinson-hyperlegible-next'
import { setNonce } from 'get-nonce'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { askAhead, FIRST_MS } from './api/hooks'
import { knowsSomebody, queries, takeUp } from './api/kept'
import { listen } from './api/live'
import { App } from './shell/App'
import { reloadForNewBuilds } from './shell/builds'
import { applyLoudness } from './shared/loudness'
import { applyTheme } from './shared/theme'
import './styles.css'

// The library that keeps the page still behind a sheet writes a style; the page's policy knows it by this.
setNonce(document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content ?? '')
applyTheme()
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
// What keeps the page for when there is no server, where nobody between can change it. It fetches all there is, so
// that what is looked at goes first.
if (import.meta.env.PROD && 'serviceWorker' in navigator) {
  setTimeout(() => void navigator.serviceWorker.register('/static/sw.js', { scope: '/' }), FIRST_MS)
}
