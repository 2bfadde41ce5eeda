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
