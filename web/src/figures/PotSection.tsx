import { useId, useRef, type KeyboardEvent, type PointerEvent } from 'react'
import { panScale, slice, spread, type PanGeometry } from './geometry'
import { sauce } from './tone'
import { useWidth } from './useSize'

export type MarkKind = 'start' | 'now' | 'stop' | 'ceiling' | 'over'

export interface PotMark {
  kind: MarkKind
  depthMm: number
  label: string
}

interface Props {
  pan: PanGeometry
  depthMm: number
  fatMm: number
  tone: number
  marks: readonly PotMark[]
  steaming?: boolean
  /** The level is a forecast: its surface is dotted. */
  foretold?: boolean
  height?: number
  /** Lets the level be dragged; called with the depth in mm. */
  onLevel?: ((depthMm: number) => void) | undefined
}

const words: Record<MarkKind, string> = {
  start: 'start',
  now: 'now',
  stop: 'stop here',
  ceiling: 'too salty below',
  over: 'too salty already',
}
const inks: Record<MarkKind, string> = {
  start: 'var(--quiet)',
  now: 'var(--ink)',
  stop: 'var(--done)',
  ceiling: 'var(--salt)',
  over: 'var(--salt)',
}

/** The pan cut through the middle, to scale: liquid, fat, and a skewer with its marks. */
export function PotSection({ pan, depthMm, fatMm, tone, marks, steaming, foretold, height: most = 400, onLevel }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(420)
  const svg = useRef<SVGSVGElement>(null)
  const id = useId()
  const labelRoom = 122
  const above = 46
  const below = 26
  const room = { x: 34, y: above, width: width - labelRoom - 46, height: most - above - below }
  const fit = panScale(pan, room)
  // A wide, low pan needs less height than there is.
  const height = Math.ceil(Math.max(above + pan.height_mm * fit.pxPerMm + below, 190))
  const box = { ...room, height: height - above - below }
  const scale = panScale(pan, box)
  const wall = 7
  const skewerX = scale.right(0) - Math.min(46, (scale.right(0) - scale.left(0)) * 0.2)
  const liquidTop = Math.max(depthMm - fatMm, 0)
  const labelX = Math.max(scale.right(pan.height_mm), scale.right(0)) + 24
  const at = spread(
    marks.map((mark) => scale.y(mark.depthMm)),
    42,
    above,
    height - 24,
  )

  const drag = (event: PointerEvent) => {
    const frame = svg.current?.getBoundingClientRect()
    if (!frame || !onLevel || (event.type !== 'pointerdown' && event.buttons === 0)) return
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId)
    onLevel(Math.max(Math.round(scale.depth(event.clientY - frame.top)), 1))
  }
  const press = (event: KeyboardEvent) => {
    const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key]
    if (!step || !onLevel) return
    event.preventDefault()
    onLevel(Math.min(Math.max(Math.round(depthMm) + step, 1), Math.floor(pan.height_mm)))
  }

  return (
    <div ref={ref} className="min-w-0">
      <svg
        ref={svg}
        width={width}
        height={height}
        role={onLevel ? 'group' : 'img'}
        aria-label={`The pan in section. ${marks.map((m) => `${words[m.kind]}: ${m.label}`).join('; ')}`}
        className="block touch-none select-none"
      >
        <defs>
          <linearGradient id={`${id}-liquid`} x1="0" x2="0" y1="0" y2="1">
            <stop offset="0" stopColor={sauce(tone)} />
            <stop offset="1" stopColor={sauce(Math.min(tone + 0.1, 1))} />
          </linearGradient>
        </defs>
        <path d={slice(scale, 0, liquidTop)} fill={`url(#${id}-liquid)`} />
        {fatMm > 0.2 && (
          <path d={slice(scale, liquidTop, Math.max(depthMm, liquidTop + 2 / scale.pxPerMm))} fill="var(--fat)" />
        )}
        {foretold && (
          <line
            x1={scale.left(depthMm) + 2}
            x2={scale.right(depthMm) - 2}
            y1={scale.y(depthMm)}
            y2={scale.y(depthMm)}
            stroke="var(--ink)"
            strokeWidth="2.5"
            strokeDasharray="2 6"
            strokeLinecap="round"
          />
        )}
        {steaming &&
          [0.12, 0.3, 0.48].map((share) => {
            const x = scale.left(depthMm) + (scale.right(depthMm) - scale.left(depthMm)) * share
            return (
              <path
                key={share}
                d={`M${x},${scale.y(depthMm) - 10}q-7,-8 0,-16t0,-16t0,-16`}
                fill="none"
                stroke="var(--vapour)"
                strokeWidth="4"
                strokeLinecap="round"
              />
            )
          })}
        {marks.map((mark) => (
          <line
            key={mark.kind}
            x1={scale.left(mark.depthMm) + 2}
            x2={scale.right(mark.depthMm) - 2}
            y1={scale.y(mark.depthMm)}
            y2={scale.y(mark.depthMm)}
            stroke={mark.kind === 'stop' ? '#fffdf8' : mark.kind === 'ceiling' ? '#c9c6ff' : 'var(--quiet)'}
            strokeWidth={mark.kind === 'stop' ? 3 : 2}
            strokeDasharray={mark.kind === 'stop' ? undefined : mark.kind === 'ceiling' ? '9 6' : '3 5'}
            opacity={mark.kind === 'now' ? 0 : 1}
          />
        ))}
        <Wall scale={scale} pan={pan} wall={wall} />
        <Skewer x={skewerX} scale={scale} pan={pan} />
        {marks.map((mark, i) => {
          const y = scale.y(mark.depthMm)
          const labelY = at[i] ?? y
          const ink = inks[mark.kind]
          return (
            <g key={mark.kind}>
              <polyline
                points={`${skewerX + 5},${y} ${scale.right(mark.depthMm) + wall + 2},${y} ${labelX - 4},${labelY}`}
                fill="none"
                stroke={ink}
                strokeWidth="2"
                strokeDasharray={mark.kind === 'ceiling' ? '6 4' : undefined}
              />
              <text x={labelX} y={labelY + 6} fill={ink} fontSize="20" fontWeight="700">
                {mark.label}
              </text>
              <text x={labelX} y={labelY + 22} fill={ink} fontSize="14">
                {words[mark.kind]}
              </text>
            </g>
          )
        })}
        {onLevel && (
          <g
            role="slider"
            tabIndex={0}
            aria-label="Level in the pan, mm"
            aria-valuemin={1}
            aria-valuemax={Math.floor(pan.height_mm)}
            aria-valuenow={Math.round(depthMm)}
            aria-valuetext={marks.find((mark) => mark.kind === 'now')?.label ?? ''}
            onPointerDown={drag}
            onPointerMove={drag}
            onKeyDown={press}
            className="cursor-ns-resize"
          >
            <rect
              x={scale.left(pan.height_mm)}
              y={scale.rim}
              width={scale.right(pan.height_mm) - scale.left(pan.height_mm)}
              height={scale.floor - scale.rim}
              fill="transparent"
            />
            <g transform={`translate(${scale.left(depthMm) + 44},${scale.y(depthMm)})`}>
              <circle r="19" fill="var(--ink)" />
              <path d="M-6,-3L0,-9L6,-3M-6,3L0,9L6,3" stroke="var(--ground)" strokeWidth="2.5" fill="none" />
            </g>
          </g>
        )}
      </svg>
    </div>
  )
}

function Wall({ scale, pan, wall }: { scale: ReturnType<typeof panScale>; pan: PanGeometry; wall: number }) {
  const [lb, rb] = [scale.left(0), scale.right(0)]
  const [lr, rr] = [scale.left(pan.height_mm), scale.right(pan.height_mm)]
  const half = wall / 2
  const grip = Math.min(20, Math.max(8, (scale.floor - scale.rim) * 0.18))
  return (
    <g fill="none" stroke="var(--steel)" strokeWidth={wall} strokeLinejoin="round" strokeLinecap="round">
      <path
        d={`M${lr - half},${scale.rim}L${lb - half},${scale.floor - 6}Q${lb - half},${scale.floor + half} ${lb + 6},${scale.floor + half}L${rb - 6},${scale.floor + half}Q${rb + half},${scale.floor + half} ${rb + half},${scale.floor - 6}L${rr + half},${scale.rim}`}
      />
      <path d={`M${lr - half - 3},${scale.rim + 8}h-18v${grip * 1.6}h20`} strokeWidth={5} />
    </g>
  )
}

function Skewer({ x, scale, pan }: { x: number; scale: ReturnType<typeof panScale>; pan: PanGeometry }) {
  const top = Math.max(scale.rim - 38, 4)
  const step = scale.pxPerMm * 10 < 7 ? 20 : 10
  const ticks = Array.from({ length: Math.floor(pan.height_mm / step) }, (_, i) => (i + 1) * step)
  return (
    <g>
      <path
        d={`M${x - 5},${top}h10V${scale.floor - 9}L${x},${scale.floor - 1}L${x - 5},${scale.floor - 9}Z`}
        fill="var(--wood)"
        stroke="var(--wood-ink)"
        strokeWidth="1.2"
      />
      {ticks.map((mm) => (
        <line
          key={mm}
          x1={x - 5}
          x2={x + (mm % 50 === 0 ? 5 : 0)}
          y1={scale.y(mm)}
          y2={scale.y(mm)}
          stroke="var(--wood-ink)"
          strokeWidth={mm % 50 === 0 ? 2 : 1.2}
        />
      ))}
    </g>
  )
}
