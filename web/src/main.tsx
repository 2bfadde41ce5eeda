import '@fontsource-variable/atkinson-hyperlegible-next'
import { setNonce } from 'get-nonce'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
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
  createRoot(root).render(
    <StrictMode>
      <App />
    </StrictMode>,
  )
}
