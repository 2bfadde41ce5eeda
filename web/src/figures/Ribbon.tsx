import { useId } from 'react'
import { layRibbon, ribbonEdge, surfaceAt, type Placed, type Stretch as Shape } from './geometry'
import { FAT_EDGE, sauce } from './tone'
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
  /** A lower ribbon with its stages; on a small or low screen the stages alone, where another picture tells the same. A
   * phone that lies down has room for the stages alone anyway. */
  slim?: boolean
  /** Said where nothing is planned yet. */
  ahead: string
}

const TALL = 142
const LOW = 92
const SLIM = 110
const EMPTY = 40
/** Above the fullest there is room for its words, and for the clock. */
const TOP = 46
/** Half the clock, and some room beside it. */
const CLOCK = 46
/** Room a letter takes, so that words are left out rather than cut off; of a label, its volume and its salt. */
const LETTER = { ahead: 8.5, volume: 10.2, salt: 7.8 }
/** Labels keep so far from each other, px. */
const APART = 10

/** The sauce's journey: height to scale with volume, tone with concentration; solid is done, hatched planned, and that
 * is never left of the clock. */
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
  const doneTo = placed.filter((p) => !p.stretch.planned).at(-1)?.x1 ?? 0
  const edge = ribbonEdge(placed, y)
  const first = placed[0]
  const last = placed.at(-1)
  if (!first || !last) {
    return (
      <div ref={ref} className="min-w-0">
        <svg width={width} height={EMPTY} aria-hidden="true" className="block">
          <line x1={0} x2={width} y1={EMPTY - 6} y2={EMPTY - 6} stroke="var(--quiet)" strokeWidth="2" strokeDasharray="2 7" />
          <text x={4} y={EMPTY - 18} fontSize="16" fill="var(--quiet)">
            {ahead}
          </text>
        </svg>
      </div>
    )
  }
  const area = `${edge}L${last.x1},${FLOOR}L0,${FLOOR}Z`
  const liquid = `${ribbonEdge(placed, y, 'liquid')}L${last.x1},${FLOOR}L0,${FLOOR}Z`
  const named = low ? [] : labels(placed, width, narrow)
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
        className={`block overflow-visible ${slim ? 'max-xl:hidden [@media(max-height:860px)]:hidden' : low ? '' : 'lying:hidden'}`}
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
          </clipPath>
        </defs>
        <path d={area} fill="var(--fat)" />
        <path d={liquid} fill={`url(#${id}-tone)`} />
        {placed.some(({ stretch }) => stretch.from_fat_ml > 1) && <path d={ribbonEdge(placed, y, 'liquid')} fill="none" stroke={FAT_EDGE} strokeWidth="1.2" />}
        <path d={area} fill={`url(#${id}-hatch)`} clipPath={`url(#${id}-ahead)`} />
        {placed.map(({ stretch, x0, x1 }, i) => {
          const middle = (x0 + x1) / 2
          // Vapour keeps clear of the words, whosever they are.
          const words = named.filter((label) => label.x1 > x0 && label.x1 - label.wide < x1)
          const clear = Math.min(x1, ...words.map((label) => label.x1 - label.wide - 6))
          return (
            <g key={i}>
              {stretch.fat && <FatPeel {...peelOf({ stretch, x0, x1 })} y={y(stretch.from_ml)} faint={stretch.planned} />}
              {stretch.vapour && clear > x0 + 16 && <Wisps x0={x0 + (x1 - x0) * (words.length > 0 ? 0.04 : 0.25)} x1={clear} at={(x) => surfaceAt({ stretch, x0, x1 }, x, y)} faint={stretch.planned} />}
              {stretch.added && !narrow && (
                <path
                  d={`M${middle - 26},${FLOOR + 6}q26,-4 26,-20q0,16 26,20z`}
                  fill="var(--wood)"
                  opacity={stretch.planned ? 0.7 : 1}
                />
              )}
            </g>
          )
        })}
        {named.map((label) => (
          <StretchWords key={label.x1} label={label} surface={y(label.stretch.to_ml)} highest={highest(label, placed, y, doneTo)} />
        ))}
        {last.x1 < width - 1 && (
          <g>
            <line x1={last.x1} x2={width} y1={FLOOR} y2={FLOOR} stroke="var(--quiet)" strokeWidth="2" strokeDasharray="2 7" />
            {!narrow && width - last.x1 > 24 + ahead.length * LETTER.ahead && (
              <text x={last.x1 + 24} y={FLOOR - 16} fontSize="16" fill="var(--quiet)">
                {ahead}
              </text>
            )}
          </g>
        )}
        {doneTo < width - 1 && (
          <g>
            <line x1={doneTo} x2={doneTo} y1={16} y2={HEIGHT} stroke="var(--ink)" strokeWidth="2.5" />
            {clock && <rect x={clamp(doneTo - 34, 0, width - 68)} y={0} width="68" height="24" rx="12" fill="var(--ink)" />}
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
                className={`min-h-12 border-t-4 pt-1 text-left text-[0.9rem] max-[359px]:text-[0.78rem] max-[359px]:tracking-tight sm:px-1.5 sm:text-base md:text-[1.05rem] lying:min-h-11 ${
                  current ? 'border-ink font-bold' : stage === next ? 'border-quiet' : 'border-line text-quiet hover:text-ink'
                }`}
              >
                {label}
                {stage === next && (
                  <>
                    <span className="sr-only">, next</span>
                    <span aria-hidden="true" className="ml-1.5 inline-block size-3 rounded-full border-[3px] border-ink max-sm:size-2.5 max-sm:border-2" />
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

interface Label {
  stretch: RibbonStretch
  /** Where it ends. */
  x1: number
  wide: number
  narrow: boolean
}

/** Volume and salt where a stretch ends, if it changed on it: of those that have no room beside each other, what is now
 * and the end before what lies between; where there is little room, where it stops as well, and nothing else. */
function labels(placed: readonly Placed<RibbonStretch>[], width: number, narrow: boolean): Label[] {
  const told = placed
    .filter(({ stretch }, i) => stretch.volume !== placed[i - 1]?.stretch.volume)
    .map(({ stretch, x1 }) => {
      const wide = 10 + (narrow ? stretch.volume.length * LETTER.volume * 0.9 : stretch.volume.length * LETTER.volume + stretch.salt.length * LETTER.salt + 8)
      return { stretch, x1: Math.min(Math.max(x1 - 8, wide), width), wide, narrow }
    })
  const now = told.findLast(({ stretch }) => !stretch.planned)
  const stop = told.find(({ stretch }) => stretch.planned && stretch.stage === 'reduce')
  const first = new Set([now, told.at(-1), stop])
  const kept: Label[] = []
  for (const label of [...first, ...(narrow ? [] : told)]) {
    if (!label || kept.includes(label)) continue
    if (kept.every((one) => label.x1 + APART <= one.x1 - one.wide || label.x1 - label.wide >= one.x1 + APART)) kept.push(label)
  }
  return kept
}

/** How high what a label stands over reaches: the sauce, or fat that peels off it, but no higher than the clock allows. */
function highest({ x1, wide }: Label, placed: readonly Placed<RibbonStretch>[], y: (ml: number) => number, clockAt: number): number {
  const x0 = x1 - wide
  const under = placed.filter((p) => p.x0 < x1 && p.x1 > x0)
  const surfaces = under.flatMap((p) => [x0, x1].map((x) => surfaceAt(p, clamp(x, p.x0, p.x1), y)))
  const peels = under.filter((p) => p.stretch.fat).map((p) => ({ ...peelOf(p), top: y(p.stretch.from_ml) }))
  const most = x0 < clockAt + CLOCK && x1 > clockAt - CLOCK ? TOP : 0
  return Math.min(...surfaces, ...peels.filter(({ x, size }) => x + 44 * size > x0 && x - 46 * size < x1).map(({ top, size }) => Math.max(top - 22 * size, most)))
}

/** Where the fat peels off a stretch, and how large. */
const peelOf = ({ x0, x1 }: Placed<RibbonStretch>) => ({ x: x0 + (x1 - x0) * 0.3, size: Math.min((x1 - x0) / 150, 1) })

/** A label in ink above the surface, which it points at where that falls below it. */
function StretchWords({ label: { stretch, x1, narrow }, surface, highest }: { label: Label; surface: number; highest: number }) {
  const base = highest - 9
  return (
    <g>
      <line x1={x1 - 2} x2={x1 - 2} y1={base + 3} y2={surface - 1} stroke="var(--ink)" strokeWidth="1.5" />
      <text x={x1 - 6} y={base} textAnchor="end" fontSize={narrow ? 15 : 17} fontWeight="700" fill="var(--ink)" stroke="var(--ground)" strokeWidth="5" strokeLinejoin="round" paintOrder="stroke">
        {stretch.volume}
        {!narrow && (
          <tspan dx="7" fontSize="14" fontWeight="500">
            {stretch.salt}
          </tspan>
        )}
      </text>
    </g>
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
  const count = Math.max(1, Math.floor((x1 - x0) / 34))
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
