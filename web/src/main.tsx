import '@fontsource-variable/atkinson-hyperlegible-next'
import { setNonce } from 'get-nonce'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { askAhead } from './api/hooks'
import { knowsSomebody, queries, takeUp } from './api/kept'
import { listenAhead } from './api/live'
import { App } from './shell/App'
import { applyLoudness } from './shared/loudness'
import { applyTheme } from './shared/theme'
import './styles.css'

// The library that keeps the page still behind a sheet writes a style; the page's policy knows it by this.
setNonce(document.querySelector<HTMLMetaElement>('meta[name=csp-nonce]')?.content ?? '')
applyTheme()
applyLoudness()
const root = document.getElementById('root')
if (root) {
  void takeUp().then(() => {
    if (knowsSomebody()) {
      listenAhead()
      askAhead(queries, location.pathname)
    }
    createRoot(root).render(
      <StrictMode>
        <App />
      </StrictMode>,
    )
  })
}
// What keeps the page for when there is no server; only where nobody between can change it.
if (import.meta.env.PROD && 'serviceWorker' in navigator) void navigator.serviceWorker.register('/static/sw.js', { scope: '/' })
