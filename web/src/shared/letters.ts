import { useLayoutEffect, useRef } from 'react'

/** Single letters for the acts of the bench; they rest while something is typed or a sheet is open. Enter belongs to what
 * has the focus, where that can be pressed. */
export function useLetters(acts: Record<string, (() => unknown) | undefined>) {
  const current = useRef(acts)
  // A letter may be pressed as soon as it is seen.
  useLayoutEffect(() => {
    current.current = acts
  })
  useLayoutEffect(() => {
    const press = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement
      // A key that is held acts once.
      if (event.repeat || event.ctrlKey || event.metaKey || event.altKey) return
      if (target.closest('input, textarea, [role=dialog], [role=menu]')) return
      if (event.key === 'Enter' && target !== document.body && target.tabIndex >= 0) return
      const act = current.current[event.key.toLowerCase()]
      if (!act) return
      event.preventDefault()
      act()
    }
    addEventListener('keydown', press)
    return () => removeEventListener('keydown', press)
  }, [])
}
