import { useState } from 'react'

/** A state that outlives a reload and a look elsewhere, in this tab; null is as it was at first. */
export function useKept<T>(key: string): [T | null, (next: T | null) => void] {
  const [state, setState] = useState<T | null>(() => {
    try {
      return JSON.parse(sessionStorage.getItem(key) ?? 'null') as T | null
    } catch {
      return null
    }
  })
  const keep = (next: T | null) => {
    setState(next)
    if (next === null) sessionStorage.removeItem(key)
    else sessionStorage.setItem(key, JSON.stringify(next))
  }
  return [state, keep]
}
