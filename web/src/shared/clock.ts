/** A time of day as kitchens write it. */
export function clock(at: string | number): string {
  return new Date(at).toLocaleTimeString('en', { hour: '2-digit', minute: '2-digit', hour12: false })
}

/** The time of day on the wall, as a share of twelve hours. */
export function turnOfDay(at: number): number {
  const date = new Date(at)
  return ((date.getHours() % 12) + date.getMinutes() / 60) / 12
}

/** A day as it stands on a label. */
export function day(at: string | number): string {
  return new Date(at).toLocaleDateString('en-GB', { weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' })
}
