import { zone } from './clock'

/** The time of day on the wall, as a share of twelve hours. */
export function turnOfDay(at: number): number {
  const hours = (at + aheadMs(at)) / 3_600_000
  return (hours % 12) / 12
}

/** The moment at which the kitchen's clock shows this, as it comes out of a field: `2026-11-27T20:00`. */
export function momentOf(shown: string): string {
  const there = Date.parse(`${shown}Z`)
  // Where the clocks change in between, what the zone is ahead by is that of the moment itself.
  return new Date(there - aheadMs(there - aheadMs(there))).toISOString()
}

/** How far the kitchen's clock is ahead of the universal one, ms. Swedes write dates as the standard does. */
function aheadMs(at: number): number {
  const whole = at - (at % 1000)
  return Date.parse(`${new Date(whole).toLocaleString('sv-SE', { timeZone: zone })}Z`) - whole
}
