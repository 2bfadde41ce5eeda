import { useEffect, useId, useRef } from 'react'

/** While something lies over the page, Back closes it instead of leaving. */
export function useBackCloses(onClose: () => void) {
  const id = useId()
  const close = useRef(onClose)
  useEffect(() => {
    close.current = onClose
  })
  useEffect(() => {
    history.pushState({ over: id }, '')
    const back = () => close.current()
    window.addEventListener('popstate', back)
    return () => {
      window.removeEventListener('popstate', back)
      // Closed otherwise, its place in the history goes too; not where the page has gone on meanwhile.
      setTimeout(() => {
        if ((history.state as { over?: string } | null)?.over === id) history.back()
      })
    }
  }, [id])
}
