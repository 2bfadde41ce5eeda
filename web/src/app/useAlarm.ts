import { useEffect, useRef, useState } from 'react'

const EVERY_MS = 20_000

export interface Alarm {
  ringing: boolean
  /** The browser makes no sound before it was touched. */
  silent: boolean
  hush: () => void
}

/** A sound when the time to look has come, again and again until it is answered; `ringing` is for the eye. */
export function useAlarm(due: number | null): Alarm {
  const [now, setNow] = useState(() => Date.now())
  const [hushed, setHushed] = useState<number | null>(null)
  const [silent, setSilent] = useState(false)
  const sound = useRef<AudioContext | null>(null)
  const ringing = due !== null && now >= due && hushed !== due
  useEffect(() => {
    if (due === null) return
    const timer = setTimeout(() => setNow(Date.now()), Math.max(due - Date.now(), 0) + 50)
    return () => clearTimeout(timer)
  }, [due])
  useEffect(() => {
    if (!ringing) return
    const ring = () => {
      try {
        sound.current ??= new AudioContext()
        setSilent(sound.current.state !== 'running')
        if (sound.current.state === 'running') beep(sound.current)
        else void sound.current.resume()
        if ('vibrate' in navigator) navigator.vibrate([300, 150, 300])
      } catch {
        // No sound to be had: what is seen remains.
      }
    }
    ring()
    const timer = setInterval(ring, EVERY_MS)
    // The first touch lets it sound.
    document.addEventListener('pointerdown', ring, { once: true })
    return () => {
      clearInterval(timer)
      document.removeEventListener('pointerdown', ring)
    }
  }, [ringing])
  return { ringing, silent: ringing && silent, hush: () => setHushed(due) }
}

function beep(audio: AudioContext): void {
  for (const [after, pitch] of [
    [0, 880],
    [0.25, 660],
    [0.5, 880],
  ] as const) {
    const tone = audio.createOscillator()
    const loudness = audio.createGain()
    tone.frequency.value = pitch
    loudness.gain.setValueAtTime(0.25, audio.currentTime + after)
    loudness.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + after + 0.22)
    tone.connect(loudness).connect(audio.destination)
    tone.start(audio.currentTime + after)
    tone.stop(audio.currentTime + after + 0.24)
  }
}

/** Keeps the screen on while something boils, where the browser can. */
export function useAwake(wanted: boolean): void {
  useEffect(() => {
    if (!wanted || !('wakeLock' in navigator)) return
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
  }, [wanted])
}
