import { beforeEach, describe, expect, it, vi } from 'vitest'
import { again, adoptOld, isKept, onOutbox, putOut, Sender, settle, waiting, type Outcome, type Owner, type Waiting } from './outbox'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  get length() {
    return kept.size
  },
  key: (i: number) => [...kept.keys()][i] ?? null,
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
})
vi.stubGlobal('addEventListener', () => undefined)
vi.stubGlobal('removeEventListener', () => undefined)

const cook: Owner = { person: '1', kitchen: 'k', name: 'cook' }
const other: Owner = { person: '2', kitchen: 'k', name: 'other' }

const put = (id: string, batchId = 'b', owner = cook) =>
  putOut({ batchId, id, at: `2026-03-14T18:00:0${id.length}Z`, payload: { kind: 'seen', sign: 'film' }, owner })

/** A sender whose clock stands still until it is moved, and the ids that were sent. */
function sender(answer: (one: Waiting) => Outcome | null) {
  const clock = { now: 1_000_000 }
  const sent: string[] = []
  const made = new Sender(async (one) => {
    sent.push(one.id)
    return answer(one)
  }, () => clock.now)
  return { clock, sent, flush: () => made.flush(cook), hurry: () => made.hurry() }
}

const ids = () => waiting().map((w) => w.id)

beforeEach(() => kept.clear())

describe('what waits for the server', () => {
  it('is kept in order, outlives the page, and goes one by one', () => {
    put('1')
    put('2')
    expect(ids()).toEqual(['1', '2'])
    settle('1')
    expect(ids()).toEqual(['2'])
    settle('2')
    expect(kept.size).toBe(0)
  })

  it('keeps its order whatever the clock says', () => {
    putOut({ batchId: 'b', id: 'z', at: '2026-03-14T18:00:00Z', payload: { kind: 'seen', sign: 'film' }, owner: cook })
    putOut({ batchId: 'b', id: 'a', at: '1970-01-01T00:00:00Z', payload: { kind: 'seen', sign: 'line' }, owner: cook })
    expect(ids()).toEqual(['z', 'a'])
  })

  it('is not lost when another tab keeps something at the same moment', () => {
    put('1')
    const before = new Map(kept)
    put('2')
    // The other tab, which had read the store before, settles what it sent.
    before.delete('spissus-outbox:1')
    kept.delete('spissus-outbox:1')
    expect(ids()).toEqual(['2'])
  })

  it('is the same list until something changes, and tells whoever shows it', () => {
    put('1')
    expect(waiting()).toBe(waiting())
    const told = vi.fn()
    const leave = onOutbox(told)
    put('2')
    expect(told).toHaveBeenCalledTimes(1)
    leave()
    settle('1')
    expect(told).toHaveBeenCalledTimes(1)
  })

  it('survives nonsense in the store, and leaves it there', () => {
    kept.set('spissus-outbox:x', '{nonsense')
    put('1')
    expect(ids()).toEqual(['1'])
    expect(kept.has('spissus-outbox:x')).toBe(true)
  })

  it('takes over what an earlier version kept', () => {
    kept.set('spissus-outbox', JSON.stringify([{ batchId: 'b', id: 'old', at: '2026-03-14T18:00:00Z', payload: { kind: 'seen', sign: 'film' } }]))
    adoptOld(cook)
    adoptOld(cook)
    expect(ids()).toEqual(['old'])
    expect(kept.has('spissus-outbox')).toBe(false)
  })
})

/** Three entries of one batch and one of another wait; the first batch meets `status`. */
async function met(status: number, more: Partial<Outcome> = {}) {
  put('1')
  put('2')
  put('3')
  put('4', 'elsewhere')
  const made = sender((one) => (one.batchId === 'b' ? { status, message: `said ${status}`, ...more } : null))
  await made.flush()
  return made
}

describe('sending it', () => {
  it('settles what is taken, in order', async () => {
    put('1')
    put('2')
    const { sent, flush } = sender(() => null)
    await flush()
    expect(sent).toEqual(['1', '2'])
    expect(waiting()).toEqual([])
  })

  it.each([0, 408, 429, 502, 503, 504])('waits without limit after %i, everything behind it too', async (status) => {
    const made = await met(status)
    expect(ids()).toEqual(['1', '2', '3', '4'])
    for (let i = 0; i < 200; i++) {
      made.clock.now += 60_000
      await made.flush()
    }
    expect(ids()).toEqual(['1', '2', '3', '4'])
    expect(waiting()[0]).toMatchObject({ state: 'waits', why: `said ${status}`, failures: 0 })
  })

  it('waits as long as the server asks for', async () => {
    const made = await met(429, { retryAfterMs: 30_000 })
    made.clock.now += 29_000
    await made.flush()
    expect(made.sent).toHaveLength(1)
    made.clock.now += 1_001
    await made.flush()
    expect(made.sent).toHaveLength(2)
  })

  it.each([403, 404])('waits and says why after %i, while the other batch is sent', async (status) => {
    const made = await met(status)
    expect(ids()).toEqual(['1', '2', '3'])
    expect(made.sent).toEqual(['1', '4'])
    made.clock.now += 3_600_000
    await made.flush()
    expect(ids()).toEqual(['1', '2', '3'])
    expect(waiting()[0]).toMatchObject({ state: 'waits', why: `said ${status}` })
  })

  it('waits for its own person after 401, and is sent for nobody else', async () => {
    const made = await met(401)
    put('5', 'b', other)
    expect(made.sent).toEqual(['1'])
    made.hurry()
    await made.flush()
    expect(made.sent).not.toContain('5')
    expect(ids()).toEqual(['1', '2', '3', '4', '5'])
  })

  it('sets one entry aside when the server fails at it three times over a minute', async () => {
    put('1')
    put('2')
    put('3')
    put('4', 'elsewhere')
    const made = sender((one) => (one.id === '1' ? { status: 500, message: 'number 7' } : null))
    await made.flush()
    expect(ids()).toEqual(['1', '2', '3'])
    made.hurry()
    await made.flush()
    made.hurry()
    await made.flush()
    // Three times, but within a moment: it may still be the server that is ill, not the entry.
    expect(waiting()[0]).toMatchObject({ state: 'waits', failures: 3 })
    made.clock.now += 60_000
    await made.flush()
    expect(waiting()).toEqual([expect.objectContaining({ id: '1', state: 'aside', why: 'number 7' })])
    expect(made.sent.slice(-2)).toEqual(['2', '3'])
  })

  it('keeps what is refused, to be mended, sent again or dropped by hand; nothing waits behind it', async () => {
    put('1')
    put('2')
    const taken = sender((one) => (one.id === '1' && 'sign' in one.payload && one.payload.sign === 'film' ? { status: 422, message: 'No.' } : null))
    await taken.flush()
    expect(waiting()).toEqual([expect.objectContaining({ id: '1', state: 'refused', why: 'No.' })])
    again('1')
    await taken.flush()
    expect(waiting()[0]).toMatchObject({ state: 'refused' })
    again('1', { kind: 'seen', sign: 'line' })
    await taken.flush()
    expect(waiting()).toEqual([])
  })

  it('does not bring back what was dropped while it was being sent', async () => {
    put('1')
    const { flush } = sender((one) => {
      settle(one.id)
      return { status: 503, message: 'away' }
    })
    await flush()
    expect(waiting()).toEqual([])
  })
})

describe('an answer at once', () => {
  it('is kept for later where the entry is not to blame', () => {
    expect([0, 401, 403, 404, 429, 500, 502, 503].every(isKept)).toBe(true)
    expect([400, 409, 413, 422].some(isKept)).toBe(false)
  })
})
