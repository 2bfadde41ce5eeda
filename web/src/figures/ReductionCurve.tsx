import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { timeTicks } from 'd3-time'
import { useWidth } from './useSize'

export interface CurvePoint {
  at: number
  ml: number
  errorMl: number
  label: string
}

interface Props {
  points: readonly CurvePoint[]
  /** Read, and not sent yet. */
  kept?: readonly { at: number; ml: number; label: string }[]
  /** How fast it falls, in words. */
  slope?: string | undefined
  stop: { ml: number; label: string } | null
  ceiling: { ml: number; label: string } | null
  /** Where the pot is thought to stand from the last look on, with its range. */
  course: readonly { at: number; ml: number; low: number; high: number }[]
  /** Between which volumes it is drawn, and those that are named. */
  axis: { low: number; high: number; ticks: readonly { ml: number; label: string }[] }
  now: number
  lookAt: number | null
  clock: (at: number) => string
  height?: number
}

const M = { left: 78, right: 14, top: 32, bottom: 30 }

/** The liquid over time: measured points with their error, and the fan of ways down to the mark. */
export function ReductionCurve({ points, kept = [], course, slope, stop, ceiling, axis, now, lookAt, clock, height = 250 }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(720)
  const last = points.at(-1)
  const first = points[0]
  if (!first || !last) return null
  const end = Math.max(course.at(-1)?.at ?? last.at, kept.at(-1)?.at ?? 0, first.at + 600_000)
  const x = scaleLinear([first.at, end], [M.left, width - M.right])
  const y = scaleLinear([axis.low, axis.high], [height - M.bottom, M.top])
  const least = axis.low
  const here = course.filter((p) => p.at <= now).at(-1)
  const fan = area<(typeof course)[number]>()
    .x((p) => x(p.at))
    .y0((p) => y(Math.max(p.low, least)))
    .y1((p) => y(Math.max(p.high, least)))
  const way = line<(typeof course)[number]>()
    .x((p) => x(p.at))
    .y((p) => y(Math.max(p.ml, least)))

  const flag = Math.min(Math.max(x(lookAt ?? now), M.left + 52), width - 54)

  return (
    <div ref={ref} className="min-w-0">
      <svg width={width} height={height} role="img" aria-label={['The liquid over time', ...points.slice(-3).map((p) => `${clock(p.at)}: ${p.label}`), slope, ...kept.map((p) => `${clock(p.at)}, not sent yet: ${p.label}`), stop?.label, ceiling?.label].filter(Boolean).join('; ')} className="block">
        {ceiling && ceiling.ml > least && (
          <>
            <rect
              x={M.left}
              y={y(ceiling.ml)}
              width={width - M.left - M.right}
              height={height - M.bottom - y(ceiling.ml)}
              fill="var(--salt)"
              opacity="0.13"
            />
            {/* Where its stretch is too low for words, the pot says it. */}
            {height - M.bottom - y(ceiling.ml) > 20 && (
              <text x={M.left + 8} y={y(ceiling.ml) + 17} fontSize="14" fontWeight="600" fill="var(--salt)">
                {ceiling.label}
              </text>
            )}
          </>
        )}
        {axis.ticks
          .filter((_, i) => height >= 200 || axis.ticks.length < 4 || i % 2 === 0)
          .map((tick) => (
            <g key={tick.ml}>
              <line x1={M.left} x2={width - M.right} y1={y(tick.ml)} y2={y(tick.ml)} stroke="var(--line)" />
              <text x={M.left - 8} y={y(tick.ml) + 5} fontSize="14" textAnchor="end" fill="var(--quiet)">
                {tick.label}
              </text>
            </g>
          ))}
        {timeTicks(new Date(first.at), new Date(end), Math.max(3, Math.floor(width / 130))).map((date) => (
          <text key={+date} x={x(+date)} y={height - 8} fontSize="14" textAnchor={x(+date) > width - 24 ? 'end' : 'middle'} fill="var(--quiet)">
            {clock(+date)}
          </text>
        ))}
        <path d={fan([...course]) ?? ''} fill="#b5722e" opacity="0.28" />
        <path d={way([...course]) ?? ''} fill="none" stroke="#8f4d20" strokeWidth="3" strokeDasharray="6 6" />
        {stop && (
          <>
            <line x1={M.left} x2={width - M.right} y1={y(stop.ml)} y2={y(stop.ml)} stroke="var(--done)" strokeWidth="3" />
            <text x={M.left + 8} y={y(stop.ml) - 8} fontSize="15" fontWeight="700" fill="var(--done)" stroke="var(--ground)" strokeWidth="4" paintOrder="stroke">
              {stop.label}
            </text>
          </>
        )}
        {lookAt !== null && (
          <g>
            <line x1={x(lookAt)} x2={x(lookAt)} y1={26} y2={height - M.bottom} stroke="var(--ink)" strokeWidth="2" strokeDasharray="5 5" />
            <rect x={flag - 52} y={0} width="104" height="25" rx="12.5" fill="var(--ink)" />
            <text x={flag} y={17} textAnchor="middle" fontSize="14" fontWeight="700" fill="var(--ground)">
              look at {clock(lookAt)}
            </text>
          </g>
        )}
        {here && <circle cx={x(Math.min(now, course.at(-1)?.at ?? now))} cy={y(Math.max(here.ml, least))} r="5" fill="var(--ink)" />}
        <polyline
          points={points.map((p) => `${x(p.at)},${y(p.ml)}`).join(' ')}
          fill="none"
          stroke="#8f4d20"
          strokeWidth="3.5"
        />
        {kept.map((p) => (
          <g key={p.at}>
            <circle cx={x(p.at)} cy={y(Math.max(p.ml, least))} r="7" fill="none" stroke="var(--ink)" strokeWidth="2.5" strokeDasharray="3.5 2.5" />
            <text x={Math.min(x(p.at), width - 90)} y={y(Math.max(p.ml, least)) - 13} fontSize="14" textAnchor="middle" fill="var(--quiet)" stroke="var(--ground)" strokeWidth="4" paintOrder="stroke">
              not sent yet
            </text>
          </g>
        ))}
        {points.map((p) => (
          <g key={p.at} stroke="var(--ink)" strokeWidth="2">
            <line x1={x(p.at)} x2={x(p.at)} y1={y(p.ml - p.errorMl)} y2={y(p.ml + p.errorMl)} />
            <circle cx={x(p.at)} cy={y(p.ml)} r="6.5" fill="var(--paper)" strokeWidth="3" />
          </g>
        ))}
      </svg>
    </div>
  )
}
