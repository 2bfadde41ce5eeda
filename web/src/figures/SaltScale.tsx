import { scaleLinear } from 'd3-scale'
import { useWidth } from './useSize'

interface Props {
  low: number
  best: number
  high: number
  wanted: number | null
  ceiling: number | null
}

/** Salt by weight on one line: where it is likely to be, where it should be, and where it must not go. */
export function SaltScale({ low, best, high, wanted, ceiling }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(720)
  const x = scaleLinear([0, Math.max(2, high * 1.1)], [8, width - 8])
  return (
    <div ref={ref} className="min-w-0">
      <svg width={width} height={112} role="img" aria-label={`Salt about ${best.toFixed(2)} %`} className="block">
        {ceiling !== null && (
          <rect x={x(ceiling)} y={38} width={width - 8 - x(ceiling)} height={22} fill="var(--salt)" opacity="0.22" rx="4" />
        )}
        <line x1={8} x2={width - 8} y1={49} y2={49} stroke="var(--line)" strokeWidth="4" strokeLinecap="round" />
        <line x1={x(low)} x2={x(high)} y1={49} y2={49} stroke="var(--salt)" strokeWidth="10" strokeLinecap="round" opacity="0.45" />
        <circle cx={x(best)} cy={49} r="11" fill="var(--salt)" />
        <text x={x(best)} y={28} textAnchor="middle" fontSize="18" fontWeight="700" fill="var(--salt)">
          {best.toFixed(2)} %
        </text>
        {wanted !== null && (
          <g>
            <path d={`M${x(wanted)},66l7,12h-14z`} fill="var(--done)" />
            <text x={x(wanted)} y={96} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--done)">
              yours {wanted.toFixed(2)} %
            </text>
          </g>
        )}
        {ceiling !== null && (
          <text x={Math.min(x(ceiling) + 6, width - 110)} y={80} fontSize="14" fill="var(--salt)">
            ceiling {ceiling.toFixed(2)} %
          </text>
        )}
      </svg>
    </div>
  )
}
