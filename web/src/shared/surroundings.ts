import { createContext } from 'react'

/** What any page may ask of what stands around it. */
export const Shell = createContext<{ changePassword: () => void }>({ changePassword: () => undefined })
