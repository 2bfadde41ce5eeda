/** The page is loaded anew for a part of it at most so often, ms. */
const ANEW_MS = 60_000
const KEY = 'spissus-anew'

/** A part that is not to be had although the server answers is of a build that is no more: the page is loaded anew. */
export function reloadForNewBuilds(): void {
  addEventListener('vite:preloadError', () => {
    if (Date.now() - Number(sessionStorage.getItem(KEY) ?? 0) < ANEW_MS) return
    fetch('/api/v1/health').then(
      ({ ok }) => {
        if (!ok) return
        sessionStorage.setItem(KEY, String(Date.now()))
        location.reload()
      },
      () => undefined,
    )
  })
}

/** A build that is found so soon after a page was loaded is that of the page, ms. */
const OWN_MS = 60_000

/**
 * Keep the page for when there is no server; only where nobody between can change it. The newest build takes over as
 * soon as a page of it is there: what is kept of the answers is of its shape.
 */
export async function keepThePage(): Promise<void> {
  if (!('serviceWorker' in navigator)) return
  const loaded = Date.now()
  const kept: ServiceWorkerRegistration | undefined = await navigator.serviceWorker.register('/static/sw.js', { scope: '/' }).catch(() => undefined)
  // Some browsers keep nothing, as in a private window.
  if (!kept) return
  const takeOver = () => kept.waiting?.postMessage('take over')
  takeOver()
  kept.addEventListener('updatefound', () => {
    const found = kept.installing
    if (Date.now() - loaded < OWN_MS) found?.addEventListener('statechange', takeOver)
  })
}
