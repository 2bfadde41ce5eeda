import { day } from '../shared/clock'

/** The day something was kept, as a page says it. */
export const inDays = (at: string): string => (day(at) === day(Date.now()) ? 'today' : day(at))
