import { describe, expect, it } from 'vitest'
import { along, layRibbon, panScale, ribbonEdge, slice, spread } from './geometry'

const tapered = { base_length_mm: 160, rim_length_mm: 220, height_mm: 95 }
const box = { x: 10, y: 20, width: 440, height: 300 }

describe('a line through points', () => {
  it('runs straight between them and stays at the outermost', () => {
    const at = (x: number) => along([0, 2, 4], [10, 20, 0], x)
    expect([-1, 0, 1, 2, 3, 4, 9].map(at)).toEqual([10, 10, 15, 20, 10, 0, 0])
  })
})

describe('the pan in section', () => {
  const scale = panScale(tapered, box)

  it('is drawn to one scale in both directions and fits its box', () => {
    expect(scale.pxPerMm).toBe(2)
    expect(scale.right(95) - scale.left(95)).toBe(440)
    expect(scale.right(0) - scale.left(0)).toBe(320)
    expect(scale.floor - scale.rim).toBe(190)
  })

  it('turns pixels back into the depth they stand for', () => {
    for (const depth of [0, 8, 33.5, 95]) expect(scale.depth(scale.y(depth))).toBeCloseTo(depth, 9)
    expect(scale.depth(-1000)).toBe(95)
    expect(scale.depth(10_000)).toBe(0)
  })

  it('follows the tapering wall', () => {
    expect(slice(scale, 0, 95)).toBe('M70,320L10,130L450,130L390,320Z')
  })
})

describe('labels', () => {
  it('stay where they belong while there is room', () => {
    expect(spread([10, 100, 60], 40, 0, 200)).toEqual([10, 100, 60])
  })

  it('are pushed apart in order when there is not', () => {
    const at = spread([50, 52, 54], 40, 0, 300)
    expect(at[1]! - at[0]!).toBeGreaterThanOrEqual(39.9)
    expect(at[2]! - at[1]!).toBeGreaterThanOrEqual(39.9)
  })

  it('stay inside their bounds', () => {
    const at = spread([190, 195, 199], 40, 0, 200)
    expect(Math.max(...at)).toBeLessThanOrEqual(200.1)
    expect(at[1]! - at[0]!).toBeGreaterThanOrEqual(39.9)
  })
})

describe('the ribbon', () => {
  const stages = ['strain', 'skim', 'reduce']
  const stretches = [
    { stage: 'strain', planned: false, from_ml: 1500, to_ml: 1500, from_fat_ml: 100, to_fat_ml: 100 },
    { stage: 'reduce', planned: false, from_ml: 1500, to_ml: 1200, from_fat_ml: 100, to_fat_ml: 0 },
    { stage: 'reduce', planned: true, from_ml: 1200, to_ml: 900, from_fat_ml: 0, to_fat_ml: 0 },
  ]

  it('gives every stage its place, whether or not anything happened there', () => {
    const { stations, placed } = layRibbon(stages, stretches, 450)
    expect(stations.map((s) => s.stage)).toEqual(stages)
    expect(stations[0]!.x0).toBe(0)
    expect(stations[2]!.x1).toBeCloseTo(450, 9)
    expect(placed).toHaveLength(3)
    expect(placed[1]!.x1).toBeCloseTo(placed[2]!.x0, 9)
  })

  it('has an edge that starts at the first volume and ends at the last', () => {
    const { placed } = layRibbon(stages, stretches, 450)
    const edge = ribbonEdge(placed, (ml) => 200 - ml / 10)
    expect(edge.startsWith('M0,50')).toBe(true)
    expect(edge.endsWith(',110')).toBe(true)
    expect(ribbonEdge(placed, (ml) => 200 - ml / 10, 'liquid').startsWith('M0,60')).toBe(true)
  })
})
