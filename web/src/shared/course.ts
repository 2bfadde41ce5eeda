import type { Batch } from '../api/hooks'

type Course = Batch['curve']['course']

/** The pot as it is thought to stand at a time, between the points that the server worked out; null without any. */
export function standsAt(course: Course, at: number): { ml: number; depthMm: number; point: Course[number] } | null {
  const first = course[0]
  const last = course.at(-1)
  if (!first || !last) return null
  const after = course.findIndex((point) => Date.parse(point.at) > at)
  if (after === 0) return { ml: first.liquid.value, depthMm: first.reads.dip.value, point: first }
  const b = after < 0 ? last : (course[after] ?? last)
  const a = after < 0 ? last : (course[after - 1] ?? last)
  const span = Date.parse(b.at) - Date.parse(a.at)
  const along = span > 0 ? (at - Date.parse(a.at)) / span : 0
  const mix = (x: number, y: number) => x + (y - x) * along
  return {
    ml: mix(a.liquid.value, b.liquid.value),
    depthMm: mix(a.reads.dip.value, b.reads.dip.value),
    point: along < 0.5 ? a : b,
  }
}
