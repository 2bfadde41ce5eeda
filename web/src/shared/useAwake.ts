import { useEffect } from 'react'

/** Keeps the screen on while something boils; true where this browser cannot, and nobody has been told. */
export function useAwake(wanted: boolean): boolean {
  const able = 'wakeLock' in navigator
  useEffect(() => {
    if (!wanted || !able) return
    let lock: WakeLockSentinel | null = null
    const take = () => {
      if (document.visibilityState !== 'visible') return
      navigator.wakeLock.request('screen').then(
        (held) => (lock = held),
        () => undefined,
      )
    }
    take()
    document.addEventListener('visibilitychange', take)
    return () => {
      document.removeEventListener('visibilitychange', take)
      void lock?.release()
    }
  }, [wanted, able])
  return wanted && !able
}
