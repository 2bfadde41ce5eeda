export type Loudness = 'usual' | 'loud'

const KEY = 'spissus-alarm'

/** How loud and how big the alarm is on this device, by the cook's choice. */
export function loudness(): Loudness {
  return localStorage.getItem(KEY) === 'loud' ? 'loud' : 'usual'
}

export function applyLoudness(): void {
  document.documentElement.dataset.alarm = loudness()
}

export function switchLoudness(): void {
  localStorage.setItem(KEY, loudness() === 'loud' ? 'usual' : 'loud')
  applyLoudness()
}
