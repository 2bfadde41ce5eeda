import { useEffect, useState } from 'react'

/**
 * A value that follows `value` once it has stood still for `ms`: for asking the server while
 * dragging. `key` tells whether it changed, where the value itself is made anew each time.
 */
export function useSettled<T>(value: T, ms = 90, key: unknown = value): T {
  const [settled, setSettled] = useState({ value, key })
  useEffect(() => {
    const timer = setTimeout(() => setSettled({ value, key }), ms)
    return () => clearTimeout(timer)
    // The value belongs to its key.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key, ms])
  return settled.value
}
