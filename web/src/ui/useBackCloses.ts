import { useEffect, useId, useRef } from 'react'

/** What the browser remembers of an entry of its history that belonged to a sheet. */
interface Remembered {
  sheet?: string
}

/**
 * Going back closes a sheet, and leaves the page as it was. Opening it makes an entry of the history; where it is closed
 * by other means, its entry stays and is taken up by the next one, for going back by script would arrive too late.
 */
export function useBackCloses(open: boolean, onClose: () => void): void {
  const id = useId()
  const close = useRef(onClose)
  useEffect(() => {
    close.current = onClose
  })
  useEffect(() => {
    if (!open) return
    const spent = (history.state as Remembered | null)?.sheet !== undefined
    if (spent) history.replaceState({ sheet: id } satisfies Remembered, '')
    else history.pushState({ sheet: id } satisfies Remembered, '')
    const back = () => {
      if ((history.state as Remembered | null)?.sheet !== id) close.current()
    }
    addEventListener('popstate', back)
    return () => removeEventListener('popstate', back)
  }, [open, id])
}
