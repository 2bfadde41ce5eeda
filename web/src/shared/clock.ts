/** The time zone of the kitchen, whose clock every time on the page is told by; the device's own until it is known. */
export let zone: string | undefined

/** From now on times are told by the clock of this zone; by the device's own where it is empty. */
export function tellTimeBy(name: string) {
  zone = name || undefined
}

/** A time of day as kitchens write it. */
export function clock(at: string | number): string {
  return new Date(at).toLocaleTimeString('en', { hour: '2-digit', minute: '2-digit', hourCycle: 'h23', timeZone: zone })
}

/** A day as it stands on a label. */
export function day(at: string | number): string {
  return new Date(at).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric', timeZone: zone })
}
