import { beforeEach, describe, expect, it, vi } from 'vitest'
import { onOutbox, putOut, settle, waiting, type Waiting } from './outbox'

const kept = new Map<string, string>()
vi.stubGlobal('localStorage', {
  getItem: (key: string) => kept.get(key) ?? null,
  setItem: (key: string, value: string) => kept.set(key, value),
  removeItem: (key: string) => kept.delete(key),
})
vi.stubGlobal('addEventListener', () => undefined)
vi.stubGlobal('removeEventListener', () => undefined)

const one = (id: string): Waiting => ({ batchId: 'b', id, at: '2026-03-14T18:00:00Z', payload: { kind: 'seen', sign: 'film' } })

describe('what waits for the server', () => {
  beforeEach(() => kept.clear())

  it('is kept in order, outlives the page, and goes one by one', () => {
    putOut(one('1'))
    putOut(one('2'))
    expect(waiting().map((w) => w.id)).toEqual(['1', '2'])
    expect(kept.get('spissus-outbox')).toContain('"film"')
    settle('1')
    expect(waiting().map((w) => w.id)).toEqual(['2'])
    settle('2')
    expect(kept.has('spissus-outbox')).toBe(false)
  })

  it('is the same list until something changes', () => {
    putOut(one('1'))
    expect(waiting()).toBe(waiting())
  })

  it('tells whoever shows it', () => {
    const told = vi.fn()
    const leave = onOutbox(told)
    putOut(one('1'))
    expect(told).toHaveBeenCalledTimes(1)
    leave()
    settle('1')
    expect(told).toHaveBeenCalledTimes(1)
  })

  it('survives nonsense in the store', () => {
    kept.set('spissus-outbox', '{nonsense')
    expect(waiting()).toEqual([])
  })
})
