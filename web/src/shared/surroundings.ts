import { createContext } from 'react'

/** What any page may ask of what stands around it. */
export const Shell = createContext<{ ask: (sheet: AskedSheet) => void }>({ ask: () => undefined })

/** What is asked of whoever is here, over any page: their name and password, a name for what was begun at once,
 * whose it is; or what a word means, by its key, or all of them. */
export type AskedSheet = 'oneself' | 'claim' | 'sign-in' | `explained:${string}`
