import { scaleLinear } from 'd3-scale'
import { area, curveMonotoneX, line } from 'd3-shape'
import { useId, type KeyboardEvent, type PointerEvent } from 'react'
import { useWidth } from './useSize'

export interface TradePoint {
  volumeMl: number
  saltPercent: number
  flourG: number
}

export interface TradeMark {
  volumeMl: number
  label: string
  saltPercent: number
  feasible: boolean
}

interface Props {
  points: readonly TradePoint[]
  marks: readonly TradeMark[]
  volumeMl: number
  volumeLabel: string
  saltWanted: number
  saltCeiling: number
  binder: string
  /** Called while the volume is dragged, in mL. */
  onVolume: (ml: number) => void
  ticks: readonly { ml: number; label: string }[]
}

const HEIGHT = 232
const M = { left: 48, right: 56, top: 46, bottom: 34 }

/** What each finished volume costs: thickener on the left scale, salt on the right. Drag the line. */
export function TradeChart(props: Props) {
  const { points, marks, volumeMl, saltWanted, saltCeiling, onVolume } = props
  const [ref, width] = useWidth<HTMLDivElement>(760)
  const id = useId()
  const volumes = points.map((p) => p.volumeMl)
  const [least, most] = [Math.min(...volumes), Math.max(...volumes)]
  // Boiling on goes to the right, as time does.
  const x = scaleLinear([most, least], [M.left, width - M.right]).clamp(true)
  const saltTop = Math.max(saltCeiling * 1.5, 1.6)
  const salt = scaleLinear([0, saltTop], [HEIGHT - M.bottom, M.top]).clamp(true)
  const flour = scaleLinear([0, Math.max(...points.map((p) => p.flourG), 10)], [HEIGHT - M.bottom, M.top]).nice(4)
  const ordered = [...points].sort((a, b) => b.volumeMl - a.volumeMl)
  const heap = area<TradePoint>()
    .x((p) => x(p.volumeMl))
    .y0(flour(0))
    .y1((p) => flour(p.flourG))
    .curve(curveMonotoneX)
  const saltLine = line<TradePoint>()
    .x((p) => x(p.volumeMl))
    .y((p) => salt(p.saltPercent))
    .curve(curveMonotoneX)

  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (event.type === 'pointermove' && event.buttons === 0) return
    if (event.type === 'pointerdown') event.currentTarget.setPointerCapture(event.pointerId)
    const frame = event.currentTarget.getBoundingClientRect()
    onVolume(Math.round(x.invert(event.clientX - frame.left) / 5) * 5)
  }
  const press = (event: KeyboardEvent) => {
    const step = { ArrowLeft: 10, ArrowUp: 10, ArrowRight: -10, ArrowDown: -10, PageUp: 100, PageDown: -100 }[event.key]
    if (!step) return
    event.preventDefault()
    onVolume(Math.round(Math.min(Math.max(volumeMl + step, least), most)))
  }
  const handle = x(volumeMl)
  const flag = Math.min(Math.max(handle, 62), width - 62)

  return (
    <div ref={ref} className="min-w-0">
      <svg
        width={width}
        height={HEIGHT}
        className="block touch-none select-none"
        onPointerDown={drag}
        onPointerMove={drag}
      >
        <defs>
          <clipPath id={`${id}-plot`}>
            <rect x={M.left} y={M.top} width={width - M.left - M.right} height={HEIGHT - M.top - M.bottom} />
          </clipPath>
        </defs>
        <rect
          x={M.left}
          y={M.top}
          width={width - M.left - M.right}
          height={salt(saltCeiling) - M.top}
          fill="var(--salt)"
          opacity="0.13"
        />
        <text x={M.left + 8} y={M.top + 19} fontSize="14" fontWeight="600" fill="var(--salt)" stroke="var(--ground)" strokeWidth="4" paintOrder="stroke">
          saltier than your ceiling
        </text>
        {flour.ticks(4).map((g) => (
          <g key={g}>
            <line x1={M.left} x2={width - M.right} y1={flour(g)} y2={flour(g)} stroke="var(--line)" />
            <text x={M.left - 8} y={flour(g) + 5} textAnchor="end" fontSize="14" fill="var(--quiet)">
              {g}
            </text>
          </g>
        ))}
        <g clipPath={`url(#${id}-plot)`}>
          <path d={heap(ordered) ?? ''} fill="var(--wood)" opacity="0.75" />
          <path d={saltLine(ordered) ?? ''} fill="none" stroke="var(--salt)" strokeWidth="3.5" />
        </g>
        <line
          x1={M.left}
          x2={width - M.right}
          y1={salt(saltWanted)}
          y2={salt(saltWanted)}
          stroke="var(--salt)"
          strokeDasharray="3 5"
          strokeWidth="2"
        />
        <text x={width - M.right + 8} y={salt(saltWanted) + 5} fontSize="14" fontWeight="600" fill="var(--salt)">
          {saltWanted.toFixed(2)} %
        </text>
        <text x={width - M.right + 8} y={salt(saltCeiling) + 5} fontSize="14" fontWeight="600" fill="var(--salt)">
          {saltCeiling.toFixed(2)} %
        </text>
        <text x={4} y={M.top - 14} fontSize="14" fill="var(--quiet)">
          g {props.binder}
        </text>
        <text x={width - 4} y={M.top - 14} textAnchor="end" fontSize="14" fill="var(--salt)">
          salt
        </text>
        {props.ticks.map((tick) => (
          <text key={tick.ml} x={x(tick.ml)} y={HEIGHT - 12} textAnchor="middle" fontSize="14" fill="var(--quiet)">
            {tick.label}
          </text>
        ))}
        {marks.filter((mark) => mark.volumeMl >= least && mark.volumeMl <= most * 1.001).map((mark) => (
          <circle
            key={mark.label}
            cx={x(mark.volumeMl)}
            cy={salt(mark.saltPercent)}
            r="6.5"
            fill={mark.feasible ? 'var(--panel)' : 'var(--heat)'}
            stroke={mark.feasible ? 'var(--salt)' : 'var(--heat)'}
            strokeWidth="3"
          >
            <title>{mark.label}</title>
          </circle>
        ))}
        <g
          role="slider"
          tabIndex={0}
          aria-label="Finished volume"
          aria-orientation="horizontal"
          aria-valuemin={Math.round(least)}
          aria-valuemax={Math.round(most)}
          aria-valuenow={Math.round(volumeMl)}
          aria-valuetext={props.volumeLabel}
          onKeyDown={press}
          className="cursor-ew-resize"
        >
          <line x1={handle} x2={handle} y1={28} y2={HEIGHT - M.bottom} stroke="var(--ink)" strokeWidth="3" />
          <rect x={flag - 60} y={0} width="120" height="32" rx="16" fill="var(--ink)" />
          <path d={`M${flag - 50},10l-5,6l5,6M${flag + 50},10l5,6l-5,6`} stroke="var(--ground)" strokeWidth="2.2" fill="none" />
          <text x={flag} y={22} textAnchor="middle" fontSize="16" fontWeight="700" fill="var(--ground)">
            {props.volumeLabel}
          </text>
          <circle cx={handle} cy={HEIGHT - M.bottom} r="9" fill="var(--ink)" />
        </g>
      </svg>
    </div>
  )
}
