import type { Payload } from './hooks'

/** Something the cook did that the server has not been told yet. */
export interface Waiting {
  batchId: string
  id: string
  at: string
  payload: Payload
}

const KEY = 'spissus-outbox'
const listeners = new Set<() => void>()
let cached: { text: string | null; list: readonly Waiting[] } = { text: null, list: [] }

/** What waits, the oldest first. */
export function waiting(): readonly Waiting[] {
  const text = localStorage.getItem(KEY)
  if (text !== cached.text) {
    try {
      cached = { text, list: JSON.parse(text ?? '[]') as Waiting[] }
    } catch {
      cached = { text, list: [] }
    }
  }
  return cached.list
}

function keep(list: readonly Waiting[]): void {
  if (list.length > 0) localStorage.setItem(KEY, JSON.stringify(list))
  else localStorage.removeItem(KEY)
  listeners.forEach((tell) => tell())
}

export function putOut(one: Waiting): void {
  keep([...waiting(), one])
}

/** Told, or refused: it waits no longer. */
export function settle(id: string): void {
  keep(waiting().filter((one) => one.id !== id))
}

export function onOutbox(tell: () => void): () => void {
  listeners.add(tell)
  addEventListener('storage', tell)
  return () => {
    listeners.delete(tell)
    removeEventListener('storage', tell)
  }
}
