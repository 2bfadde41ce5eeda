/// <reference lib="webworker" />
import { addRoute, cleanupOutdatedCaches, matchPrecache, precache } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'

declare const self: ServiceWorkerGlobalScope

/** The server is waited for this long before the page is drawn without it, ms. */
const PATIENCE_MS = 3000

// Page, scripts, styles, letters: kept together with each build, and all of one build. A newer one waits until the
// last page of this one is closed, or a page of its own says that it is there.
cleanupOutdatedCaches()
precache(self.__WB_MANIFEST)

// The page is the server's newest as long as it answers: it brings the token that changes are sent with.
registerRoute(
  new NavigationRoute(
    async ({ request }) => {
      try {
        const answer = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) })
        if (answer.status < 500) return answer
      } catch {
        // No server: what is kept.
      }
      return (await matchPrecache('/')) ?? Response.error()
    },
    { denylist: [/^\/(api|static)\//] },
  ),
)
addRoute()

self.addEventListener('message', ({ data }) => {
  if (data === 'take over') void self.skipWaiting()
})
// Pages that were open before are looked after too.
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
