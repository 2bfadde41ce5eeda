import { lazy, type ComponentType } from 'react'

/** How long after a failure a part is asked for again, ms. */
const AGAIN_MS = 1500

/** A part of the page that comes when it is asked for. Where it does not, it is asked for until it has come. */
export const part = <P extends object>(load: () => Promise<{ default: ComponentType<P> }>) =>
  lazy(async () => {
    for (;;) {
      try {
        return await load()
      } catch {
        await new Promise((again) => setTimeout(again, AGAIN_MS))
      }
    }
  })
