import { scaleLinear } from 'd3-scale'
import { curveMonotoneX, line } from 'd3-shape'
import { useWidth } from './useSize'

export interface TemperaturePoint {
  at: number
  celsius: number
}

interface Props {
  readings: readonly TemperaturePoint[]
  forecast: readonly TemperaturePoint[]
  /** Temperatures to be reached, with the time by which; none until the clock runs. */
  limits: readonly { celsius: number; by: number | null; label: string }[]
  from: number
  clock: (at: number) => string
}

const HEIGHT = 210
const M = { left: 46, right: 18, top: 14, bottom: 30 }
const HOUR = 3_600_000

/** A pot cooling: what the probe said, the way ahead at its pace, and the two gates it has to pass under. */
export function CoolingCurve({ readings, forecast, limits, from, clock }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(640)
  const last = Math.max(...limits.map((limit) => limit.by ?? 0), from + 6 * HOUR)
  const x = scaleLinear([from, last], [M.left, width - M.right]).clamp(true)
  const y = scaleLinear([0, 100], [HEIGHT - M.bottom, M.top]).clamp(true)
  const path = line<TemperaturePoint>()
    .x((p) => x(p.at))
    .y((p) => y(p.celsius))
    .curve(curveMonotoneX)
  const tight = (by: number) => x(by) - M.left < 150
  const hours = Array.from({ length: 7 }, (_, i) => from + i * HOUR).filter((at, i) => at <= last && i % Math.max(Math.ceil(340 / width), 1) === 0)
  return (
    <div ref={ref} className="min-w-0">
      <svg width={width} height={HEIGHT} role="img" aria-label={`Cooling: ${readings.map((r) => `${Math.round(r.celsius)} °C at ${clock(r.at)}`).join(', ')}`} className="block">
        {[0, 25, 50, 75, 100].map((celsius) => (
          <g key={celsius}>
            <line x1={M.left} x2={width - M.right} y1={y(celsius)} y2={y(celsius)} stroke="var(--line)" />
            <text x={M.left - 8} y={y(celsius) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
              {celsius}
            </text>
          </g>
        ))}
        {hours.map((at) => (
          <text key={at} x={x(at)} y={HEIGHT - 8} textAnchor="middle" fontSize="14" fill="var(--quiet)">
            {clock(at)}
          </text>
        ))}
        {limits.map((limit, i) =>
          limit.by === null ? null : (
            <g key={limit.celsius}>
              <path d={`M${x(limit.by)},${M.top}V${y(limit.celsius)}h14`} stroke="var(--heat)" strokeWidth="3" fill="none" />
              {/* One below the other, and past its gate where there is no room before it. */}
              <text x={x(limit.by) + (tight(limit.by) ? 8 : -8)} y={M.top + 16 + 20 * i} textAnchor={tight(limit.by) ? 'start' : 'end'} fontSize="15" fontWeight="700" fill="var(--heat)" stroke="var(--ground)" strokeWidth="4" paintOrder="stroke">
                {limit.label} by {clock(limit.by)}
              </text>
            </g>
          ),
        )}
        <path d={path([...readings]) ?? ''} fill="none" stroke="var(--vapour)" strokeWidth="4" />
        <path d={path([...forecast]) ?? ''} fill="none" stroke="var(--vapour)" strokeWidth="3" strokeDasharray="3 6" />
        {readings.map((reading) => (
          <circle key={reading.at} cx={x(reading.at)} cy={y(reading.celsius)} r="6" fill="var(--panel)" stroke="var(--ink)" strokeWidth="3" />
        ))}
      </svg>
    </div>
  )
}
