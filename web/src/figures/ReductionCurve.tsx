import { scaleLinear, scaleTime } from 'd3-scale'
import { useWidth } from './useSize'

export interface CurvePoint {
  at: number
  ml: number
  errorMl: number
}

interface Props {
  points: readonly CurvePoint[]
  stop: { ml: number; label: string } | null
  ceiling: { ml: number; label: string } | null
  /** When boiling on brings it to the stop: soonest, likely, latest, as times. */
  arrive: { low: number; best: number; high: number } | null
  height?: number
}

const M = { left: 62, right: 14, top: 18, bottom: 30 }

/** The liquid over time: measured points with their error, and the fan of ways down to the mark. */
export function ReductionCurve({ points, stop, ceiling, arrive, height = 250 }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(720)
  const last = points.at(-1)
  const first = points[0]
  if (!first || !last) return null
  const x = scaleTime([new Date(first.at), new Date(Math.max(arrive?.high ?? last.at, first.at + 600_000))], [M.left, width - M.right])
  const floor = Math.min(stop?.ml ?? last.ml, ceiling?.ml ?? last.ml, last.ml)
  const top = Math.max(...points.map((p) => p.ml + p.errorMl))
  const y = scaleLinear([floor * 0.85, top], [height - M.bottom, M.top]).nice(4)
  const reach = (at: number) => x(new Date(at))
  const least = y.domain()[0] ?? 0
  const time = (date: Date) => date.toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', hour12: false })

  return (
    <div ref={ref} className="min-w-0">
      <svg width={width} height={height} role="img" aria-label="The liquid over time" className="block">
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
            <text x={M.left + 8} y={y(ceiling.ml) + 17} fontSize="14" fontWeight="600" fill="var(--salt)">
              {ceiling.label}
            </text>
          </>
        )}
        {y.ticks(4).map((ml) => (
          <g key={ml}>
            <line x1={M.left} x2={width - M.right} y1={y(ml)} y2={y(ml)} stroke="var(--line)" />
            <text x={M.left - 8} y={y(ml) + 5} fontSize="14" textAnchor="end" fill="var(--quiet)">
              {Math.round(ml).toLocaleString('en').replace(',', ' ')}
            </text>
          </g>
        ))}
        {x.ticks(Math.max(3, Math.floor(width / 130))).map((date) => (
          <text key={+date} x={x(date)} y={height - 8} fontSize="14" textAnchor="middle" fill="var(--quiet)">
            {time(date)}
          </text>
        ))}
        {stop && arrive && (
          <>
            <path
              d={`M${x(new Date(last.at))},${y(last.ml)}L${reach(arrive.low)},${y(stop.ml)}L${reach(arrive.high)},${y(stop.ml)}Z`}
              fill="#b5722e"
              opacity="0.28"
            />
            <line
              x1={x(new Date(last.at))}
              y1={y(last.ml)}
              x2={reach(arrive.best)}
              y2={y(stop.ml)}
              stroke="#8f4d20"
              strokeWidth="3"
              strokeDasharray="6 6"
            />
            <line
              x1={M.left}
              x2={width - M.right}
              y1={y(stop.ml)}
              y2={y(stop.ml)}
              stroke="var(--done)"
              strokeWidth="3"
            />
            <text x={M.left + 8} y={y(stop.ml) - 8} fontSize="15" fontWeight="700" fill="var(--done)">
              {stop.label}
            </text>
          </>
        )}
        <polyline
          points={points.map((p) => `${x(new Date(p.at))},${y(p.ml)}`).join(' ')}
          fill="none"
          stroke="#8f4d20"
          strokeWidth="3.5"
        />
        {points.map((p) => (
          <g key={p.at} stroke="var(--ink)" strokeWidth="2">
            <line x1={x(new Date(p.at))} x2={x(new Date(p.at))} y1={y(p.ml - p.errorMl)} y2={y(p.ml + p.errorMl)} />
            <circle cx={x(new Date(p.at))} cy={y(p.ml)} r="6.5" fill="var(--paper)" strokeWidth="3" />
          </g>
        ))}
      </svg>
    </div>
  )
}
