import { describe, expect, it } from 'vitest'
import { comesTo, lookAfter, lookedUp, standsAt } from './course'

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

describe('what is looked up without the server', () => {
  const table = [
    { liquid: 500, metric: { dip: 20, jug: 519, scale: null }, us: { dip: 0.8, jug: 2.2, scale: null } },
    { liquid: 1000, metric: { dip: 40, jug: 1038, scale: null }, us: { dip: 1.6, jug: 4.4, scale: null } },
  ]

  it('is a volume and a depth, in either system of units', () => {
    expect(lookedUp(table, 'metric', 'dip', 30)).toEqual({ ml: 750, depthMm: 30 })
    expect(lookedUp(table, 'us', 'jug', 3.3)?.ml).toBeCloseTo(750)
  })

  it('is nothing beyond the table, or by a scale that never saw the pan', () => {
    expect(lookedUp(table, 'metric', 'dip', 60)).toBeNull()
    expect(lookedUp(table, 'metric', 'scale', 1200)).toBeNull()
  })

  it('is looked at by the rule that the answer carried, and sooner where it was sooner there', () => {
    const look = (ml: number, minute: number, minutes: number) => ({ liquid_ml: ml, at: new Date(minute * 60_000).toISOString(), minutes })
    const looks = [look(900, 4, 6), look(700, 10, 2)]
    const curve = { course, stop: shown(600) } as unknown as Parameters<typeof lookAfter>[0]
    expect(lookAfter(curve, looks, 800, 20 * 60_000)).toBe(24 * 60_000)
    expect(lookAfter(curve, looks, 950, 20 * 60_000)).toBe(26 * 60_000)
    expect(lookAfter(curve, looks, 800, 3.5 * 60_000)).toBe(5.5 * 60_000)
    expect(lookAfter(curve, looks, 605, 20 * 60_000)).toBe(20.5 * 60_000)
    expect(lookAfter(curve, [], 800, 0)).toBeNull()
  })

  it('is when the pot comes down to a mark', () => {
    expect(comesTo(course, 700)).toBe(15 * 60_000)
    expect(comesTo(course, 300)).toBeNull()
  })
})
