import type { Batch, Session } from '../api/types'
import type { Schemas } from '../api/client'

type Course = Batch['curve']['course']
type Table = Batch['pot']['table']
/** What is read of the pot, but by eye. */
export type ReadBy = keyof Table[number]['metric']

/** A straight line between what lies on either side; null beyond either end. */
function between(rows: readonly (readonly [number, number])[], x: number): number | null {
  for (const [i, [x1, y1]] of rows.entries()) {
    const [x0, y0] = rows[i - 1] ?? [x1, y1]
    if (x >= Math.min(x0, x1) && x <= Math.max(x0, x1)) return x1 === x0 ? y1 : y0 + ((x - x0) / (x1 - x0)) * (y1 - y0)
  }
  return null
}

/** The pot as it is thought to stand at a time, between the points that the server worked out; null without any. */
export function standsAt(course: Course, at: number): { ml: number; depthMm: number; point: Course[number] } | null {
  const first = course[0]
  const last = course.at(-1)
  if (!first || !last) return null
  const when = Math.min(Math.max(at, Date.parse(first.at)), Date.parse(last.at))
  const along = (value: (point: Course[number]) => number) => between(course.map((point) => [Date.parse(point.at), value(point)]), when) ?? 0
  const nearest = (a: Course[number], b: Course[number]) => (Math.abs(Date.parse(b.at) - when) < Math.abs(Date.parse(a.at) - when) ? b : a)
  return { ml: along((point) => point.liquid.value), depthMm: along((point) => point.reads.dip.value), point: course.reduce(nearest) }
}

/** When the pot is thought to have come down to so much liquid, ms; null where it never does. */
export function comesTo(course: Course, ml: number): number | null {
  return between(course.map((point) => [point.liquid.value, Date.parse(point.at)]), ml)
}

/** The liquid that a figure shows, in mL, and how deep it stands; null where the table of the pot does not go so far. */
export function lookedUp(table: Table, units: Session['units'], by: ReadBy, figure: number): { ml: number; depthMm: number } | null {
  const rows = table.flatMap((row) => {
    const shows = row[units][by]
    return shows === null ? [] : [{ shows, ml: row.liquid, depthMm: row.metric.dip }]
  })
  const ml = between(rows.map((row) => [row.shows, row.ml]), figure)
  const depthMm = between(rows.map((row) => [row.shows, row.depthMm]), figure)
  return ml === null || depthMm === null ? null : { ml, depthMm }
}

type Look = Schemas['LookOut']

/** When to look after a reading of so much liquid that nobody has answered yet, ms: by the server's own rule, which the
 * answer before it carried; sooner where it was there sooner than the stove was thought able to bring it. */
export function lookAfter({ course, stop }: Pick<Batch['curve'], 'course' | 'stop'>, looks: readonly Look[], ml: number, at: number): number | null {
  const began = course[0] && Date.parse(course[0].at)
  if (began === undefined || stop === null || looks.length === 0) return null
  const end: Look = { liquid_ml: stop.value, at: looks[looks.length - 1]?.at ?? '', minutes: 0 }
  const levels = [...looks, end]
  const minutes = between(levels.map((look) => [look.liquid_ml, look.minutes]), ml) ?? levels[0]?.minutes ?? 0
  const soonest = between(levels.map((look) => [look.liquid_ml, Date.parse(look.at)]), ml) ?? Date.parse(levels[0]?.at ?? '')
  const pace = Math.min(Math.max((at - began) / Math.max(soonest - began, 1), 0), 1)
  return at + Math.max(minutes * pace, LEAST_LOOK_MIN) * 60_000
}

/** Nobody looks twice within this, minutes. */
const LEAST_LOOK_MIN = 0.5
