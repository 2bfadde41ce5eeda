import { createContext, use, useCallback } from 'react'
import type { Part, Said, Session, Shown } from '../api/types'
import { clock } from './clock'
import { useNow } from './useNow'

export type UnitSystem = Session['units']

/** The reader's units. The server words every amount in both systems; the page picks one. */
export const Units = createContext<UnitSystem>('metric')

/** Picks the wording for the reader's units, as plain text: for labels, and where only text will do. */
export function useSay(): (of: Said | Shown) => string {
  const units = use(Units)
  return useCallback((of: Said | Shown) => (Array.isArray(of) ? of.map((part) => text(part, units)).join('') : of[units]), [units])
}

function text(part: Part, units: UnitSystem): string {
  if (typeof part === 'string') return part
  if ('metric' in part) return part[units]
  if ('figure' in part) return part.figure
  if ('name' in part) return part.name
  if ('at' in part) return clock(part.at)
  return minutesUntil(Date.parse(part.until), Date.now())
}

/** The minutes that are left until a time, both in ms; never less than one. */
export function minutesUntil(until: number, now: number): string {
  return `${Math.max(Math.round((until - now) / 60_000), 1)}\u00a0min`
}

/** The same in hours and minutes, where it is long. */
export function spanUntil(until: number, now: number): string {
  const minutes = Math.max(Math.round((until - now) / 60_000), 1)
  return minutes < 90 ? minutesUntil(until, now) : `${Math.floor(minutes / 60)}\u00a0h ${minutes % 60}\u00a0min`
}

/** A sentence in its parts: amounts as they are to stand out, and names that cannot turn the words around them. */
export function Words({ of, amounts }: { of: Said; amounts?: string }) {
  const units = use(Units)
  return of.map((part, i) => {
    if (typeof part === 'string') return part
    if ('name' in part) return <bdi key={i}>{part.name}</bdi>
    if ('until' in part) return <Remaining key={i} until={part.until} className={amounts} />
    return (
      <span key={i} className={amounts}>
        {text(part, units)}
      </span>
    )
  })
}

function Remaining({ until, className }: { until: string; className: string | undefined }) {
  return <span className={className}>{minutesUntil(Date.parse(until), useNow())}</span>
}

/** Picks of two examples the one in the reader's units. */
export function useExample(): (metric: string, us: string) => string {
  const units = use(Units)
  return (metric, us) => (units === 'us' ? us : metric)
}
