import { useEffect, useState } from 'react'

/** The time in ms, kept up to date to a few seconds. */
export function useNow(): number {
  const [now, setNow] = useState(() => Date.now())
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 5000)
    return () => clearInterval(timer)
  }, [])
  return now
}
