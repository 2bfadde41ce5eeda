import type { Payload } from './types'

/** Who made an entry, and in whose kitchen: it is sent for nobody else. */
export interface Owner {
  person: string
  kitchen: string
  /** What the person is called, for saying whose it is. */
  name: string
}

/** Something the cook did that the server has not taken yet. */
export interface Waiting {
  batchId: string
  id: string
  at: string
  /** The version of the events it was entered in; the first pages did not say. */
  version?: number
  payload: Payload
  owner: Owner
  /** Its place in the order in which things were done in this browser. */
  order: number
  /**
   * It waits to be sent; or the server refused it, or failed at it again and again, and it is kept to be
   * mended, sent again or dropped by hand. Nothing waits behind the latter two.
   */
  state: 'waits' | 'refused' | 'aside'
  /** What was heard of it last. */
  why: string | null
  /** How often, and since when, the server failed at this very entry. */
  failures: number
  failingSince: number | null
}

/** Every entry has a key of its own, so that two tabs never overwrite each other's. */
const PREFIX = 'spissus-outbox:'
/** Where all of them stood in one list. */
const OLD_KEY = 'spissus-outbox'

const listeners = new Set<() => void>()
let cached: { text: string; list: readonly Waiting[] } = { text: '', list: [] }

function stored(): [string, string][] {
  const found: [string, string][] = []
  for (let i = 0; i < localStorage.length; i++) {
    const key = localStorage.key(i)
    if (key?.startsWith(PREFIX)) found.push([key, localStorage.getItem(key) ?? ''])
  }
  return found.sort(([a], [b]) => (a < b ? -1 : 1))
}

/** What waits, in the order in which it was done. What cannot be read is left where it is, and not shown. */
export function waiting(): readonly Waiting[] {
  const rows = stored()
  const text = JSON.stringify(rows)
  if (text !== cached.text) {
    const list = rows.flatMap(([, row]) => {
      try {
        return [JSON.parse(row) as Waiting]
      } catch {
        return []
      }
    })
    list.sort((a, b) => a.order - b.order || (a.at < b.at ? -1 : 1))
    cached = { text, list }
  }
  return cached.list
}

function keep(one: Waiting): void {
  localStorage.setItem(PREFIX + one.id, JSON.stringify(one))
  listeners.forEach((tell) => tell())
}

/** Keep an entry. Throws where the browser has no room left for it. */
export function putOut(one: Pick<Waiting, 'batchId' | 'id' | 'at' | 'version' | 'payload' | 'owner'>, why: string | null = null): void {
  const order = Math.max(0, ...waiting().map((w) => w.order)) + 1
  keep({ ...one, order, state: 'waits', why, failures: 0, failingSince: null })
}

/** It waits no longer: the server has it, or the cook dropped it. */
export function settle(id: string): void {
  localStorage.removeItem(PREFIX + id)
  listeners.forEach((tell) => tell())
}

/** Send it again as it is, or mended. An entry that the server may have seen refused keeps its id. */
export function again(id: string, payload?: Payload): void {
  const one = waiting().find((w) => w.id === id)
  if (one) keep({ ...one, payload: payload ?? one.payload, state: 'waits', why: null, failures: 0, failingSince: null })
}

/** What an earlier version kept belongs to whoever is signed in when it is found. */
export function adoptOld(owner: Owner): void {
  const text = localStorage.getItem(OLD_KEY)
  if (text === null) return
  try {
    for (const one of JSON.parse(text) as Waiting[]) putOut({ ...one, owner })
  } catch {
    return
  }
  localStorage.removeItem(OLD_KEY)
}

export function onOutbox(tell: () => void): () => void {
  listeners.add(tell)
  addEventListener('storage', tell)
  return () => {
    listeners.delete(tell)
    removeEventListener('storage', tell)
  }
}

// -- what an answer means ---------------------------------------------------------------------------

/** An answer other than "taken": 0 where there was none. */
export interface Outcome {
  status: number
  message: string
  retryAfterMs?: number | undefined
}

/** Waits for as long as it takes: nobody answers, too much at once, the database is away. */
export const AWAY: readonly number[] = [0, 408, 425, 429, 502, 503, 504]
/** Waits until something changes by hand: signed out, not allowed, not there. */
export const HELD: readonly number[] = [401, 403, 404]

/** So often, over so long, must the server fail at an entry before it is set aside. */
const FAILURES = 3
const FAILING_MS = 60_000

export const AGAIN_MS = 2_000
export const HELD_AGAIN_MS = 30_000

/** Whether an entry that met this answer is kept and sent later; anything else stands beside its field. */
export const isKept = (status: number): boolean => AWAY.includes(status) || HELD.includes(status) || status >= 500

/** What becomes of an entry, and what else has to wait, until when. */
interface Next {
  one: Waiting
  blocks: 'everything' | 'batch' | 'nothing'
  until: number
}

export function after(one: Waiting, { status, message, retryAfterMs }: Outcome, now: number): Next {
  const until = now + (retryAfterMs ?? AGAIN_MS)
  if (AWAY.includes(status)) return { one: { ...one, why: message }, blocks: 'everything', until }
  if (status === 401) return { one: { ...one, why: message }, blocks: 'everything', until: now + HELD_AGAIN_MS }
  if (HELD.includes(status)) return { one: { ...one, why: message }, blocks: 'batch', until: now + HELD_AGAIN_MS }
  if (status >= 500) {
    const failures = one.failures + 1
    const failingSince = one.failingSince ?? now
    const aside = failures >= FAILURES && now - failingSince >= FAILING_MS
    const state = aside ? 'aside' : 'waits'
    return { one: { ...one, why: message, failures, failingSince, state }, blocks: aside ? 'nothing' : 'batch', until: now + FAILING_MS / FAILURES }
  }
  return { one: { ...one, why: message, state: 'refused' }, blocks: 'nothing', until: now }
}

/**
 * Sends what waits of one person in one kitchen, in order. What one batch has to wait for holds up no
 * other batch.
 */
export class Sender {
  private everythingUntil = 0
  private readonly batchUntil = new Map<string, number>()
  private busy = false

  constructor(
    private readonly send: (one: Waiting) => Promise<Outcome | null>,
    private readonly now: () => number = Date.now,
  ) {}

  /** Forget what was waited for: the network is back, someone signed in, or the cook asks for it. */
  hurry(): void {
    this.everythingUntil = 0
    this.batchUntil.clear()
  }

  async flush(owner: Pick<Owner, 'person' | 'kitchen'>): Promise<void> {
    if (this.busy) return
    this.busy = true
    try {
      for (const one of waiting()) {
        if (one.state !== 'waits' || !belongs(one, owner)) continue
        if (this.now() < this.everythingUntil) return
        if (this.now() < (this.batchUntil.get(one.batchId) ?? 0)) continue
        const outcome = await this.send(one)
        if (outcome === null) {
          settle(one.id)
          continue
        }
        const next = after(one, outcome, this.now())
        // It may have been dropped while the answer was under way.
        if (waiting().some((w) => w.id === one.id)) keep(next.one)
        if (next.blocks === 'everything') this.everythingUntil = next.until
        if (next.blocks === 'batch') this.batchUntil.set(one.batchId, next.until)
      }
    } finally {
      this.busy = false
    }
  }
}

export const belongs = (one: Waiting, owner: Pick<Owner, 'person' | 'kitchen'>): boolean =>
  one.owner.person === owner.person && one.owner.kitchen === owner.kitchen
