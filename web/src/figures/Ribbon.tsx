import { useId } from 'react'
import { layRibbon, ribbonEdge, surfaceAt, type Stretch as Shape } from './geometry'
import { inkOn, sauce } from './tone'
import { useWidth } from './useSize'

export interface RibbonStretch extends Shape {
  from_tone: number
  to_tone: number
  /** Words for the picture. */
  volume: string
  salt: string
  fat: string | null
  vapour: string | null
  added: string | null
}

interface Props<S extends string> {
  stages: readonly { stage: S; label: string }[]
  stretches: readonly RibbonStretch[]
  /** The stage that is next to do, and the one that is open. */
  next: S | null
  open: S | null
  onOpen?: (stage: S) => void
  clock: string
  /** What the ribbon's full height stands for, in mL; the most there was by default. */
  fullMl?: number | undefined
  /** A lower ribbon without its stages, for where the way only begins. */
  low?: boolean
  /** A lower ribbon with its stages; on a small or low screen the stages alone, where another picture tells the same. */
  slim?: boolean
  /** Said where nothing is planned yet. */
  ahead: string
}

const TALL = 138
const LOW = 92
const SLIM = 106
const TOP = 34
/** Room a letter takes, so that words are left out rather than cut off. */
const LETTER = 8.5

/** The sauce's journey: height to scale with volume, tone with concentration; solid is done, hatched planned. */
export function Ribbon<S extends string>({ stages, stretches, next, open, onOpen, clock, ahead, fullMl, low = false, slim = false }: Props<S>) {
  const [ref, width] = useWidth<HTMLDivElement>(1224)
  const id = useId()
  const narrow = width < 640
  const HEIGHT = low ? LOW : slim ? SLIM : TALL
  const FLOOR = HEIGHT - 6
  const most = Math.max(fullMl ?? 0, ...stretches.map((s) => Math.max(s.from_ml, s.to_ml)), 1)
  const y = (ml: number) => FLOOR - (ml / most) * (FLOOR - TOP)
  const { stations, placed } = layRibbon(
    stages.map((s) => s.stage),
    stretches,
    width,
    narrow,
  )
  const edge = ribbonEdge(placed, y)
  const first = placed[0]
  const last = placed.at(-1)
  if (!first || !last) {
    return (
      <div ref={ref} className="min-w-0">
        <svg width={width} height={HEIGHT} aria-hidden="true" className="block">
          <line x1={0} x2={width} y1={FLOOR} y2={FLOOR} stroke="var(--quiet)" strokeWidth="2" strokeDasharray="2 7" />
          <text x={4} y={FLOOR - 16} fontSize="16" fill="var(--quiet)">
            {ahead}
          </text>
        </svg>
      </div>
    )
  }
  const area = `${edge}L${last.x1},${FLOOR}L0,${FLOOR}Z`
  const liquid = `${ribbonEdge(placed, y, 'liquid')}L${last.x1},${FLOOR}L0,${FLOOR}Z`
  const doneTo = placed.filter((p) => !p.stretch.planned).at(-1)?.x1 ?? 0
  const toneStops = placed.flatMap(({ stretch, x0, x1 }) => [
    { at: x0 / last.x1, tone: stretch.from_tone },
    { at: x1 / last.x1, tone: stretch.to_tone },
  ])

  return (
    <div ref={ref} className="min-w-0">
      <svg
        width={width}
        height={HEIGHT}
        role="img"
        aria-label={`The sauce's way: ${placed.map((p) => `${p.stretch.stage}${p.stretch.planned ? ', planned' : ''}, ${p.stretch.volume}`).join('; ')}`}
        className={`block overflow-visible ${slim ? 'max-xl:hidden [@media(max-height:860px)]:hidden' : ''}`}
      >
        <defs>
          <linearGradient id={`${id}-tone`} x1="0" x2="1" y1="0" y2="0">
            {toneStops.map((stop, i) => (
              <stop key={i} offset={stop.at} stopColor={sauce(stop.tone)} />
            ))}
          </linearGradient>
          <pattern id={`${id}-hatch`} width="9" height="9" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="4" height="9" fill="var(--ground)" opacity="0.5" />
          </pattern>
          <clipPath id={`${id}-ahead`}>
            <rect x={doneTo} y={0} width={Math.max(width - doneTo, 0)} height={HEIGHT} />
            {/* Out of order is normal: what is only planned is hatched before the clock too. */}
            {placed
              .filter(({ stretch }) => stretch.planned)
              .map(({ x0, x1 }, i) => (
                <rect key={i} x={x0} y={0} width={Math.max(x1 - x0, 0)} height={HEIGHT} />
              ))}
          </clipPath>
        </defs>
        <path d={area} fill="var(--fat)" />
        <path d={liquid} fill={`url(#${id}-tone)`} />
        <path d={area} fill={`url(#${id}-hatch)`} clipPath={`url(#${id}-ahead)`} />
        {placed.map(({ stretch, x0, x1 }, i) => {
          const middle = (x0 + x1) / 2
          const surface = y(stretch.to_ml)
          return (
            <g key={i}>
              {stretch.fat && <FatPeel x={x0 + (x1 - x0) * 0.3} y={y(stretch.from_ml)} size={Math.min((x1 - x0) / 150, 1)} faint={stretch.planned} />}
              {stretch.vapour && <Wisps x0={x0 + (x1 - x0) * 0.25} x1={x1} at={(x) => surfaceAt({ stretch, x0, x1 }, x, y)} faint={stretch.planned} />}
              {stretch.added && !narrow && (
                <path
                  d={`M${middle - 26},${FLOOR + 6}q26,-4 26,-20q0,16 26,20z`}
                  fill="var(--wood)"
                  opacity={stretch.planned ? 0.7 : 1}
                />
              )}
              {!narrow && !low && <StretchWords {...{ stretch, x0, x1, surface }} floor={FLOOR} />}
            </g>
          )
        })}
        {last.x1 < width - 1 && (
          <g>
            <line x1={last.x1} x2={width} y1={FLOOR} y2={FLOOR} stroke="var(--quiet)" strokeWidth="2" strokeDasharray="2 7" />
            {!narrow && width - last.x1 > 24 + ahead.length * LETTER && (
              <text x={last.x1 + 24} y={FLOOR - 16} fontSize="16" fill="var(--quiet)">
                {ahead}
              </text>
            )}
          </g>
        )}
        {doneTo < width - 1 && (
          <g>
            <line x1={doneTo} x2={doneTo} y1={16} y2={HEIGHT} stroke="var(--ink)" strokeWidth="2.5" />
            <rect x={clamp(doneTo - 34, 0, width - 68)} y={0} width="68" height="24" rx="12" fill="var(--ink)" />
            <text
              x={clamp(doneTo, 34, width - 34)}
              y={17}
              textAnchor="middle"
              fontSize="15"
              fontWeight="700"
              fill="var(--ground)"
            >
              {clock}
            </text>
          </g>
        )}
      </svg>
      {!low && (
        <nav aria-label="Stages" className="relative flex">
          {stations.map((station, i) => {
            const { stage, label } = stages[i] ?? { stage: station.stage as S, label: station.stage }
            const current = open === stage
            return (
              <button
                key={stage}
                type="button"
                onClick={() => onOpen?.(stage)}
                aria-current={current ? 'step' : undefined}
                style={{ width: station.x1 - station.x0 }}
                className={`min-h-12 border-t-4 pt-1 text-left text-[0.9rem] sm:px-1.5 sm:text-base md:text-[1.05rem] ${
                  current ? 'border-ink font-bold' : stage === next ? 'border-heat' : 'border-line text-quiet hover:text-ink'
                }`}
              >
                {label}
                {stage === next && (
                  <>
                    <span className="sr-only">, next</span>
                    <span aria-hidden="true" className="ml-1.5 text-heat max-sm:hidden">
                      ●
                    </span>
                  </>
                )}
              </button>
            )
          })}
        </nav>
      )}
    </div>
  )
}

function clamp(value: number, low: number, high: number) {
  return Math.min(Math.max(value, low), high)
}

interface Words {
  stretch: RibbonStretch
  x0: number
  x1: number
  surface: number
  floor: number
}

/** Volume and salt at the end of a stretch. */
function StretchWords({ stretch, x0, x1, surface, floor }: Words) {
  const wide = x1 - x0 > 96
  const changed = Math.abs(stretch.to_ml - stretch.from_ml) > 2 || stretch.stage === 'strain'
  if (!wide || !changed) return null
  // On hatching, a rim in the colour of the ground keeps the figures legible.
  const ink = stretch.planned ? 'var(--ink)' : inkOn(stretch.to_tone)
  const rim = stretch.planned ? { stroke: 'var(--ground)', strokeWidth: 6, paintOrder: 'stroke' as const } : {}
  return (
    <text
      x={x1 - 12}
      y={Math.min(surface + 27, floor - 28)}
      textAnchor="end"
      fontSize="18"
      fontWeight="700"
      fill={ink}
      strokeLinejoin="round"
      {...rim}
    >
      {stretch.volume}
      <tspan x={x1 - 12} dy="19" fontSize="14" fontWeight="500">
        {stretch.salt}
      </tspan>
    </text>
  )
}

function FatPeel({ x, y, size, faint }: { x: number; y: number; size: number; faint: boolean }) {
  return (
    <path
      transform={`translate(${x},${y}) scale(${size})`}
      d="M-46,1C-12,1 0,-22 44,-22L44,-12C18,-12 12,1 40,4Z"
      fill="var(--fat)"
      stroke={faint ? 'var(--fat-ink)' : 'none'}
      strokeDasharray="3 3"
      opacity={faint ? 0.55 : 1}
    />
  )
}

function Wisps({ x0, x1, at, faint }: { x0: number; x1: number; at: (x: number) => number; faint: boolean }) {
  const count = Math.max(2, Math.floor((x1 - x0) / 34))
  return (
    <g
      fill="none"
      stroke="var(--vapour)"
      strokeWidth="3"
      strokeLinecap="round"
      opacity={faint ? 0.5 : 1}
      strokeDasharray={faint ? '5 4' : undefined}
    >
      {Array.from({ length: count }, (_, i) => {
        const x = x0 + ((x1 - x0) * (i + 0.3)) / count
        const from = Math.max(at(x) - 8, 30)
        return <path key={i} d={`M${x},${from}q-6,-6 0,-12t0,-12`} />
      })}
    </g>
  )
}
