/** The time zone of the kitchen, whose clock every time on the page is told by; the device's own until it is known. */
let zone: string | undefined

/** From now on times are told by the clock of this zone; by the device's own where it is empty. */
export function tellTimeBy(name: string) {
  zone = name || undefined
}

/** A time of day as kitchens write it. */
export function clock(at: string | number): string {
  return new Date(at).toLocaleTimeString('en', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23', timeZone: zone })
}

/** The time of day on the wall, as a share of twelve hours. */
export function turnOfDay(at: number): number {
  const hours = (at + aheadMs(at)) / 3_600_000
  return (hours % 12) / 12
}

/** A day as it stands on a label. */
export function day(at: string | number): string {
  return new Date(at).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', timeZone: zone })
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
