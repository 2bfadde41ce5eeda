import { createContext } from 'react'

/** Whoever is here looks on: what would record something cannot be tapped; what only opens can. */
export const LooksOn = createContext(false)
