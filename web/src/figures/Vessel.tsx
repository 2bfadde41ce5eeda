/** What a pan cut through the middle is drawn of; each is put into the SVG of a figure. */

import { useId, type KeyboardEvent, type PointerEvent } from 'react'
import { slice, type PanGeometry, type PanScale } from './geometry'
import { FAT_EDGE, sauce } from './tone'

interface LiquidProps {
  scale: PanScale
  depthMm: number
  fatMm: number
  tone: number
  /** The level is a forecast: its surface is dotted. */
  foretold?: boolean
  steaming?: boolean
}

/** The liquid with its fat on top, and the steam above it. */
export function Liquid({ scale, depthMm, fatMm, tone, foretold = false, steaming = false }: LiquidProps) {
  const id = useId()
  const liquidTop = Math.max(depthMm - fatMm, 0)
  return (
    <g>
      <defs>
        <linearGradient id={`${id}-liquid`} x1="0" x2="0" y1="0" y2="1">
          <stop offset="0" stopColor={sauce(tone)} />
          <stop offset="1" stopColor={sauce(Math.min(tone + 0.1, 1))} />
        </linearGradient>
      </defs>
      <path d={slice(scale, 0, liquidTop)} fill={`url(#${id}-liquid)`} />
      {fatMm > 0.2 && <path d={slice(scale, liquidTop, Math.max(depthMm, liquidTop + 2 / scale.pxPerMm))} fill="var(--fat)" />}
      {/* Fat is told from sauce by its edge as well. */}
      {fatMm > 0.2 && <line x1={scale.left(liquidTop)} x2={scale.right(liquidTop)} y1={scale.y(liquidTop)} y2={scale.y(liquidTop)} stroke={FAT_EDGE} strokeWidth="1.5" />}
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
    </g>
  )
}

interface LevelProps {
  scale: PanScale
  pan: PanGeometry
  depthMm: number
  label: string
  /** Called with the depth in mm while the level is dragged. */
  onLevel: (depthMm: number) => void
}

/** The handle by which the level is dragged. */
export function Level({ scale, pan, depthMm, label, onLevel }: LevelProps) {
  const drag = (event: PointerEvent<SVGGElement>) => {
    const frame = event.currentTarget.ownerSVGElement?.getBoundingClientRect()
    if (!frame || (event.type !== 'pointerdown' && event.buttons === 0)) return
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId)
    onLevel(Math.max(Math.round(scale.depth(event.clientY - frame.top)), 1))
  }
  const press = (event: KeyboardEvent) => {
    const step = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key]
    if (!step) return
    event.preventDefault()
    onLevel(Math.min(Math.max(Math.round(depthMm) + step, 1), Math.floor(pan.height_mm)))
  }
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label="Level in the pan, mm"
      aria-valuemin={1}
      aria-valuemax={Math.floor(pan.height_mm)}
      aria-valuenow={Math.round(depthMm)}
      aria-valuetext={label}
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
  )
}

/** The wall of the pan and its handle. */
export function Wall({ scale, pan, wall }: { scale: PanScale; pan: PanGeometry; wall: number }) {
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

/** The skewer, a line each centimetre. */
export function Skewer({ x, scale, pan }: { x: number; scale: PanScale; pan: PanGeometry }) {
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
