import { useEffect, useRef, useState } from 'react'
import type { Schemas } from '../api/client'
import { loudness } from './loudness'

type Sound = Schemas['ActOut']['sound']

/** How often it sounds, and how loud, by the cook's choice. */
const SOUNDS = { usual: { everyMs: 20_000, gain: 0.25 }, loud: { everyMs: 6_000, gain: 0.9 } } as const

/** Its tones, Hz: down and up where every minute loses something, two that rise where it may wait. */
const TONES: Record<Sound, readonly number[]> = { hurry: [880, 660, 880], ready: [523, 659] }

export interface Alarm {
  ringing: boolean
  /** The browser makes no sound before it was touched. */
  silent: boolean
  hush: () => void
}

/**
 * A sound when the time to look has come, again and again until it is answered here, or was heard on any other device
 * (`quiet`); `ringing` is for the eye. `onHush` tells the others.
 */
export function useAlarm(due: number | null, quiet: boolean, sounds: Sound, onHush: () => unknown): Alarm {
  const [now, setNow] = useState(() => Date.now())
  const [hushed, setHushed] = useState<number | null>(null)
  const [silent, setSilent] = useState(false)
  const sound = useRef<AudioContext | null>(null)
  const ringing = due !== null && now >= due && hushed !== due && !quiet
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
        if (sound.current.state === 'running') beep(sound.current, TONES[sounds], SOUNDS[loudness()].gain)
        else void sound.current.resume()
        // A browser lets nothing shake that was not touched yet, and complains.
        if (navigator.userActivation?.hasBeenActive && 'vibrate' in navigator) navigator.vibrate([300, 150, 300])
      } catch {
        // No sound to be had: what is seen remains.
      }
    }
    ring()
    const timer = setInterval(ring, SOUNDS[loudness()].everyMs)
    // The first touch lets it sound.
    document.addEventListener('pointerdown', ring, { once: true })
    return () => {
      clearInterval(timer)
      document.removeEventListener('pointerdown', ring)
    }
  }, [ringing, sounds])
  const hush = () => {
    setHushed(due)
    onHush()
  }
  return { ringing, silent: ringing && silent, hush }
}

function beep(audio: AudioContext, pitches: readonly number[], gain: number): void {
  pitches.forEach((pitch, i) => {
    const after = 0.25 * i
    const tone = audio.createOscillator()
    const loudness = audio.createGain()
    tone.frequency.value = pitch
    loudness.gain.setValueAtTime(gain, audio.currentTime + after)
    loudness.gain.exponentialRampToValueAtTime(0.001, audio.currentTime + after + 0.22)
    tone.connect(loudness).connect(audio.destination)
    tone.start(audio.currentTime + after)
    tone.stop(audio.currentTime + after + 0.24)
  })
}
