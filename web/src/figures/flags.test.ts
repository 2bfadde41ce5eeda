import { describe, expect, it } from 'vitest'
import { layFlags } from './flags'

const touch = (a: { left: number; top: number }, b: { left: number; top: number }, width: number, height: number) =>
  a.left < b.left + width && b.left < a.left + width && a.top < b.top + height && b.top < a.top + height

describe('flags', () => {
  it.each([
    ['far apart', [0, 300, 600]],
    ['on one spot', [100, 100, 100, 100]],
    ['all at the right edge', [780, 790, 800]],
    ['close, in any order', [500, 20, 60, 480, 90]],
  ])('never touch: %s', (_, poles) => {
    const flags = layFlags(poles.map((x) => ({ x, width: 150 })), 44, 800, (x) => 300 + x / 10)
    flags.forEach((flag, i) => {
      expect(flag.left).toBeGreaterThanOrEqual(0)
      expect(flag.left + 150).toBeLessThanOrEqual(800)
      expect(flag.top + 44).toBeLessThan(300 + (poles[i] ?? 0) / 10)
      flags.slice(i + 1).forEach((other) => expect(touch(flag, other, 150, 44)).toBe(false))
    })
  })

  it('hangs low where there is room', () => {
    const [one, two] = layFlags([{ x: 0, width: 100 }, { x: 400, width: 100 }], 44, 800, () => 200)
    expect(one?.top).toBe(two?.top)
  })
})
