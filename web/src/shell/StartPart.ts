import { part } from '../ui/part'

/** The start of a batch: a part of its own, which whoever begins at once is not to wait for. */
export const StartPart = part(async () => ({ default: (await import('../intake/StartPage')).StartPage }))
