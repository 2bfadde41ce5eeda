import { createElement, lazy, useState, type ComponentType } from 'react'

/** How long after a failure a part is asked for again, ms. */
const AGAIN_MS = 1500

/** A part of the page that comes when it is asked for. Where it does not, it is asked for until it has come. One that
 * was asked for `ahead` stands at once. */
export function part<P extends object>(load: () => Promise<{ default: ComponentType<P> }>) {
  let come: ComponentType<P> | null = null
  const ahead = async () => {
    for (;;) {
      try {
        const module = await load()
        come = module.default
        return module
      } catch {
        await new Promise((again) => setTimeout(again, AGAIN_MS))
      }
    }
  }
  const Waited = lazy(ahead)
  const Part = (props: P) => {
    // It stays the one it was: another would begin anew.
    const [Shown] = useState<ComponentType<P>>(() => come ?? Waited)
    return createElement(Shown, props)
  }
  return Object.assign(Part, { ahead })
}
