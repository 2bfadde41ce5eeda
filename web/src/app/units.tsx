import { createContext, use } from 'react'
import type { Said, Session } from '../api/hooks'

export type UnitSystem = Session['units']

/** The reader's units. The server words every amount in both systems; the page picks one. */
export const Units = createContext<UnitSystem>('metric')

/** Picks the wording for the reader's units. */
export function useSay(): (said: Said) => string {
  const units = use(Units)
  return (said) => said[units]
}
