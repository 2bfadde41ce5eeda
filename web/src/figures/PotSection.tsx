import { panScale, spread, type PanGeometry } from './geometry'
import { useWidth } from './useSize'
import { Liquid, Skewer, Wall } from './Vessel'

export type MarkKind = 'start' | 'now' | 'stop' | 'ceiling' | 'over' | 'kept'

export interface PotMark {
  kind: MarkKind
  depthMm: number
  label: string
}

/** Room that the words of a mark take. */
const LABEL = 42

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
}

const words: Record<MarkKind, string> = {
  start: 'start',
  now: 'now',
  stop: 'stop here',
  ceiling: 'too salty below',
  over: 'too salty already',
  kept: 'read, not sent yet',
}
const inks: Record<MarkKind, string> = {
  start: 'var(--quiet)',
  now: 'var(--ink)',
  stop: 'var(--done)',
  ceiling: 'var(--salt)',
  over: 'var(--salt)',
  kept: 'var(--quiet)',
}

/** The pan cut through the middle, to scale: liquid, fat, and a skewer with its marks. */
export function PotSection({ pan, depthMm, fatMm, tone, marks, steaming, foretold, height: most = 400 }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(420)
  const labelRoom = 122
  const above = 46
  const below = 26
  const room = { x: 34, y: above, width: width - labelRoom - 46, height: most - above - below }
  const fit = panScale(pan, room)
  // A wide, low pan needs less height than there is.
  const height = Math.ceil(Math.max(above + pan.height_mm * fit.pxPerMm + below, 190, above + LABEL * marks.length))
  const box = { ...room, height: height - above - below }
  const scale = panScale(pan, box)
  const wall = 7
  const skewerX = scale.right(0) - Math.min(46, (scale.right(0) - scale.left(0)) * 0.2)
  const labelX = Math.max(scale.right(pan.height_mm), scale.right(0)) + 24
  const at = spread(
    marks.map((mark) => scale.y(mark.depthMm)),
    LABEL,
    above,
    height - 24,
  )

  return (
    <div ref={ref} className="min-w-0">
      <svg
        width={width}
        height={height}
        role="img"
        aria-label={`The pan in section. ${marks.map((m) => `${words[m.kind]}: ${m.label}`).join('; ')}`}
        className="block touch-none select-none"
      >
        <Liquid {...{ scale, depthMm, fatMm, tone }} foretold={foretold ?? false} steaming={steaming ?? false} />
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
              {mark.kind === 'kept' && <circle cx={skewerX} cy={y} r="7" fill="none" stroke={ink} strokeWidth="2.5" strokeDasharray="3.5 2.5" />}
              <text x={labelX} y={labelY + 6} fill={ink} fontSize="20" fontWeight="700">
                {mark.label}
              </text>
              <text x={labelX} y={labelY + 22} fill={ink} fontSize="14">
                {words[mark.kind]}
              </text>
            </g>
          )
        })}
      </svg>
    </div>
  )
}
