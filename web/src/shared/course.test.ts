import { describe, expect, it } from 'vitest'
import { standsAt } from './course'

const shown = (value: number) => ({ value, metric: `${value}`, us: `${value}` })
const point = (minute: number, ml: number, mm: number) => ({
  at: new Date(minute * 60_000).toISOString(), liquid: shown(ml), low_ml: ml, high_ml: ml, reads: { dip: shown(mm), jug: shown(ml), scale: null },
})
const course = [point(0, 1000, 40), point(10, 800, 32), point(20, 600, 24)]

describe('where the pot is thought to stand', () => {
  it('lies between the points on either side', () => {
    expect(standsAt(course, 5 * 60_000)).toMatchObject({ ml: 900, depthMm: 36 })
    expect(standsAt(course, 17.5 * 60_000)).toMatchObject({ ml: 650, depthMm: 26 })
  })

  it('stays at either end beyond it', () => {
    expect(standsAt(course, -60_000)?.ml).toBe(1000)
    expect(standsAt(course, 60 * 60_000)?.ml).toBe(600)
    expect(standsAt([], 0)).toBeNull()
  })

  it('is worded by the nearer point', () => {
    expect(standsAt(course, 2 * 60_000)?.point.liquid.value).toBe(1000)
    expect(standsAt(course, 8 * 60_000)?.point.liquid.value).toBe(800)
  })
})
