/** A time of day as kitchens write it. */
export function clock(at: string | number): string {
  return new Date(at).toLocaleTimeString('en', { hour: '2-digit', minute: '2-digit', hour12: false })
}
