import { useId, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react'
import { layFlags } from './flags'
import { along } from './geometry'
import { sauce } from './tone'
import { useWidth } from './useSize'

export interface FallPoint {
  /** The liquid where boiling stops, and the sauce that it makes, in mL. */
  leftMl: number
  makesMl: number
  tone: number
  label: string
  /** What binds it then: how much of it, to scale, and in words. */
  heap: number
  heapLabel: string
}

export interface FallFlag {
  key: string
  name: string
  note: string
  /** Where its boiling stops, in mL; another pot stands beside the start, as full as it is then. */
  leftMl: number
  beside: { ml: number; added: number; into: readonly string[] } | null
  feasible: boolean
  /** The one to take. */
  first: boolean
}

interface Props {
  points: readonly FallPoint[]
  flags: readonly FallFlag[]
  inHand: string | null
  mostMl: number
  /** Boiled down below this its sauce is too salty. */
  tooSaltyMl: number | null
  tooSaltyLabel: string | null
  /** How much there is now, in words. */
  nowLabel: string
  /** What the handle says, where boiling stops for the way in hand, and what all of that comes to. */
  handle: { ml: number; label: string; said: string }
  onPick: (key: string) => void
  /** Called with the sauce that boiling down to where the handle is would make, in mL. */
  onMakes: (ml: number) => void
}

/** How high all of the pot is drawn, px: where the window is tall, higher. */
const POT = { least: 80, most: 230, besides: 716 }
const FLAG = 44
const HEAP = { wide: 26, high: 22 }
/** How near to a flag the handle snaps to it, px. */
const SNAP = 12
/** Room a letter of a flag takes, and its edges, px. */
const LETTER = { name: 7.6, note: 7.1, edge: 26 }
/** How far a step of an arrow key moves the handle, mL. */
const STEP = { ArrowLeft: 10, ArrowUp: 10, ArrowRight: -10, ArrowDown: -10, PageUp: 100, PageDown: -100 }

/** A heap of something that pours, so wide to either side, and so high. */
function heap(x: number, base: number, wide: number, high: number): string {
  const top = base - high
  return `M${x - wide},${base}C${x - wide * 0.5},${base} ${x - wide * 0.45},${top} ${x},${top}S${x + wide * 0.5},${base} ${x + wide},${base}Z`
}

/** The pot as it would fall, from all of it to a fifth, to scale, with a flag where each way stops boiling. */
export function FallingPot(props: Props) {
  const { points, inHand, mostMl, tooSaltyMl, tooSaltyLabel, nowLabel, handle, onPick, onMakes } = props
  const [ref, width] = useWidth<HTMLDivElement>(1224)
  const svg = useRef<SVGSVGElement>(null)
  /** Where the finger is, px, and how much room the flags had above the floor when it came down. */
  const [drag, setDrag] = useState<{ at: number; above: number } | null>(null)
  const id = useId()
  const falling = [...points].sort((a, b) => b.leftMl - a.leftMl)
  const leastMl = falling.at(-1)?.leftMl ?? mostMl / 5
  const narrow = width < 560
  // Where there is little room, what cannot be taken is told in words alone.
  const flags = narrow ? props.flags.filter((flag) => flag.feasible || flag.key === inHand) : props.flags
  const full = Math.min(Math.max(window.innerHeight - POT.besides, POT.least), narrow ? POT.least : POT.most)

  // Pots beside the start: one for each amount, as wide as there is room.
  const pots = [...new Map(flags.flatMap(({ beside }) => (beside ? [[Math.round(beside.ml), beside] as const] : []))).values()].sort((a, b) => a.ml - b.ml)
  const [wide, space] = narrow ? [26, 10] : [62, 18]
  const potX = (ml: number) => pots.findIndex((pot) => Math.round(pot.ml) === Math.round(ml)) * (wide + space) + 5
  const start = pots.length * (wide + space) + (pots.length > 0 ? space : 3)

  const x = (ml: number) => along([leastMl, mostMl], [width - 2, start], ml)
  const leftAt = (px: number) => along([start, width - 2], [mostMl, leastMl], px)
  const tallest = Math.max(mostMl, ...pots.map((pot) => pot.ml))
  const high = (ml: number) => (ml / tallest) * full
  const poleOf = (flag: FallFlag) => (flag.beside ? potX(flag.beside.ml) + wide / 2 : x(flag.leftMl))
  const size = narrow ? 0.86 : 1
  const laid = layFlags(
    flags.map((flag) => ({
      x: poleOf(flag),
      width: Math.ceil(Math.max(flag.name.length * LETTER.name, flag.note.length * LETTER.note) * size) + LETTER.edge,
    })),
    FLAG,
    width,
    // Measured from the floor upwards; the highest of what stands there.
    (at) => -(at < start - space ? high(Math.max(mostMl, ...pots.map((pot) => pot.ml))) : high(leftAt(at))),
  )
  // Nothing moves under a finger that is down.
  const above = drag?.above ?? -Math.min(-full - 8, ...laid.map((flag) => flag.top))
  const floor = above + 4
  const height = floor + HEAP.high + 32

  const at = (event: PointerEvent) => event.clientX - (svg.current?.getBoundingClientRect().left ?? 0)
  const makes = (ml: number) => along(falling.map((p) => p.leftMl).reverse(), falling.map((p) => p.makesMl).reverse(), ml)
  const move = (px: number) => {
    const near = flags.find((flag) => !flag.beside && flag.feasible && Math.abs(x(flag.leftMl) - px) < SNAP)
    if (near) onPick(near.key)
    else onMakes(Math.round(makes(leftAt(px)) / 5) * 5)
  }
  const pull = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type === 'pointermove' && drag === null) return
    if (event.type === 'pointerdown') {
      const beside = flags.find((flag) => flag.beside && Math.abs(poleOf(flag) - at(event)) < (wide + space) / 2)
      if (beside) return onPick(beside.key)
      event.currentTarget.setPointerCapture(event.pointerId)
    }
    const px = Math.min(Math.max(at(event), start), width - 2)
    setDrag({ at: px, above })
    move(px)
  }
  const press = (event: KeyboardEvent) => {
    const step = STEP[event.key as keyof typeof STEP] as number | undefined
    if (step === undefined) return
    event.preventDefault()
    onMakes(Math.round(makes(Math.min(Math.max(handle.ml + step, leastMl), mostMl))))
  }
  const knob = drag?.at ?? x(handle.ml)
  const salty = tooSaltyMl === null ? null : x(Math.min(tooSaltyMl, mostMl))
  const most = Math.max(...falling.map((p) => p.heap), 1)
  const said = (p: FallPoint) => (p.label.length + p.heapLabel.length + 2) * LETTER.note + 12
  // The first and the last are named, and between them those that have room.
  const last = falling.length - 1
  const shown: FallPoint[] = []
  let end = start
  falling.forEach((p, i) => {
    const wide = said(p)
    const left = i === 0 ? start : i === last ? width - wide : x(p.leftMl) - wide / 2
    const before = i === last ? width : width - said(falling[last] ?? p)
    if ((i % 4 !== 0 && i !== last) || (i > 0 && (left < end || (i < last && left + wide > before)))) return
    shown.push(p)
    end = left + wide
  })

  return (
    <div ref={ref} className="relative min-w-0" role="group" aria-label="Ways there">
      <svg
        ref={svg}
        width={width}
        height={height}
        className="block touch-pan-y select-none"
        onPointerDown={pull}
        onPointerMove={pull}
        onPointerUp={() => setDrag(null)}
        onPointerCancel={() => setDrag(null)}
      >
        <defs>
          <linearGradient id={`${id}-tone`} gradientUnits="userSpaceOnUse" x1={start} x2={width - 2} y1="0" y2="0">
            {falling.map((p) => (
              <stop key={p.leftMl} offset={(x(p.leftMl) - start) / Math.max(width - 2 - start, 1)} stopColor={sauce(p.tone)} />
            ))}
          </linearGradient>
          <pattern id={`${id}-salty`} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <rect width="2.5" height="8" fill="#c9c6ff" opacity="0.75" />
          </pattern>
          <pattern id={`${id}-added`} width="7" height="7" patternUnits="userSpaceOnUse">
            <circle cx="2" cy="2" r="1.3" fill="var(--quiet)" />
          </pattern>
        </defs>
        <path d={`M${start},${floor}V${floor - high(mostMl)}L${width - 2},${floor - high(leastMl)}V${floor}Z`} fill={`url(#${id}-tone)`} />
        {!narrow && high(mostMl) > 40 && (
          <text x={start + 10} y={floor - 11} fontSize="15" fontWeight="700" fill="#fff" stroke="#3a2412" strokeWidth="4" paintOrder="stroke">
            {nowLabel} now, boil down →
          </text>
        )}
        {salty !== null && salty < width - 3 && (
          <>
            <path
              d={`M${salty},${floor}V${floor - high(leftAt(salty))}L${width - 2},${floor - high(leastMl)}V${floor}Z`}
              fill={`url(#${id}-salty)`}
            />
            {width - salty > 170 && (
              <text x={(salty + width) / 2} y={floor - 9} textAnchor="middle" fontSize="15" fontWeight="700" fill="#fff" stroke="#2b2a55" strokeWidth="4" paintOrder="stroke">
                too salty from here on
              </text>
            )}
          </>
        )}
        {pots.map((pot) => (
          <g key={pot.ml}>
            <rect x={potX(pot.ml)} y={floor - high(pot.ml - pot.added)} width={wide} height={high(pot.ml - pot.added)} fill={sauce(falling[0]?.tone ?? 0.3)} />
            {pot.added > 0 && (
              <rect x={potX(pot.ml)} y={floor - high(pot.ml)} width={wide} height={high(pot.added)} fill={`url(#${id}-added)`} stroke="var(--quiet)" strokeDasharray="3 3" />
            )}
            <path
              d={`M${potX(pot.ml) - 3},${floor - high(tallest) - 2}V${floor}h${wide + 6}V${floor - high(tallest) - 2}`}
              fill="none"
              stroke="var(--steel)"
              strokeWidth="4"
              strokeLinejoin="round"
            />
            {!narrow && high(pot.ml) > 16 * pot.into.length && (
              <text y={floor - 4 - 15 * pot.into.length} textAnchor="middle" fontSize="13" fontWeight="700" fill="#fff" stroke="#3a2412" strokeWidth="3.5" paintOrder="stroke">
                {pot.into.map((line) => (
                  <tspan key={line} x={potX(pot.ml) + wide / 2} dy="15">
                    {line}
                  </tspan>
                ))}
              </text>
            )}
          </g>
        ))}
        <line x1={start} x2={width} y1={floor} y2={floor} stroke="var(--ink)" strokeWidth="2.5" />
        {flags.map((flag, i) => {
          const held = flag.key === inHand
          return (
            <line
              key={flag.key}
              x1={poleOf(flag)}
              x2={poleOf(flag)}
              y1={floor + (laid[i]?.top ?? 0) + FLAG / 2}
              y2={floor - (flag.beside && !held ? high(flag.beside.ml) / 2 : 0)}
              stroke={flag.feasible ? 'var(--ink)' : 'var(--heat)'}
              strokeWidth={held ? 4 : 1.8}
              strokeDasharray={flag.feasible ? undefined : '5 4'}
            />
          )
        })}
        {shown.map((p) => {
          const px = x(p.leftMl)
          // A heap grows in both ways with what it holds.
          const share = Math.sqrt(p.heap / most)
          const base = floor + 6 + HEAP.high
          const middle = Math.min(Math.max(px, start + HEAP.wide), width - HEAP.wide)
          const words = said(p) / 2
          const under = Math.min(Math.max(middle, start + words - 6), width - words + 6)
          return (
            <g key={p.leftMl} fontSize="14" fill="var(--quiet)">
              {p.heap > 0 && (
                <path
                  d={heap(middle, base, HEAP.wide * share, HEAP.high * share)}
                  fill="var(--wood)"
                />
              )}
              <text x={under} y={base + 19} textAnchor="middle">
                {p.label}: <tspan fontWeight="700" fill="var(--ink)">{p.heapLabel}</tspan>
              </text>
            </g>
          )
        })}
        <g
          role="slider"
          tabIndex={0}
          aria-label="Boil down to"
          aria-orientation="horizontal"
          aria-valuemin={Math.round(leastMl)}
          aria-valuemax={Math.round(mostMl)}
          aria-valuenow={Math.round(handle.ml)}
          aria-valuetext={handle.said}
          onKeyDown={press}
          className="cursor-ew-resize"
        >
          <rect x={knob - 24} y={floor - high(mostMl)} width="48" height={high(mostMl) + 28} fill="transparent" />
          <rect x={Math.min(Math.max(knob - 48, 0), width - 96)} y={floor - 2} width="96" height="28" rx="14" fill="var(--ink)" />
          <text x={Math.min(Math.max(knob, 48), width - 48)} y={floor + 17} textAnchor="middle" fontSize="15" fontWeight="700" fill="var(--ground)">
            {handle.label}
          </text>
          <path d={`M${knob - 9},${floor - 10}h18l-9,9z`} fill="var(--ink)" stroke="var(--ground)" strokeWidth="1.5" />
        </g>
      </svg>
      <p className="sr-only">
        {`The pot as it would fall, from ${falling[0]?.label ?? ''} to ${falling[last]?.label ?? ''}.${tooSaltyLabel ? ` Too salty below ${tooSaltyLabel}.` : ''}`}
      </p>
      {flags.map((flag, i) => {
        const place = laid[i]
        if (!place) return null
        const held = flag.key === inHand
        const look = held ? (flag.feasible ? 'border-ink bg-ink text-ground' : 'border-heat bg-panel text-heat') : flag.feasible ? 'border-quiet bg-panel hover:border-ink' : 'border-dashed border-heat bg-panel text-heat'
        return (
          <button
            key={flag.key}
            type="button"
            aria-pressed={held}
            onClick={() => onPick(flag.key)}
            className={`absolute grid content-center rounded-lg border-2 px-2 text-left whitespace-nowrap ${look} ${flag.first ? 'border-l-8 border-l-done' : ''}`}
            style={{
              left: place.left,
              top: floor + place.top,
              height: FLAG,
              width: Math.ceil(Math.max(flag.name.length * LETTER.name, flag.note.length * LETTER.note) * size) + LETTER.edge,
            }}
          >
            <span className="text-[0.86rem] leading-[1.1rem] font-bold sm:text-[1rem]">
              {flag.name}
              {flag.first && <span className="sr-only">, the first choice</span>}
            </span>
            <span className="text-[0.78rem] leading-[1.1rem] sm:text-[0.875rem]">{flag.note}</span>
          </button>
        )
      })}
    </div>
  )
}
