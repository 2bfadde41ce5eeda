import type { ReactNode } from 'react'
import { eased, layRibbon, type Stretch } from './geometry'
import { useWidth } from './useSize'

/** One taste along the ribbon; levels are shares of its lane. */
export interface ThreadLine {
  key: string
  label: string
  ink: string
  starts: readonly number[]
  ends: readonly number[]
  now: { low: number; best: number; high: number }
  gate_low: number
  gate_high: number
  /** What stands behind the gate: the word, and what opens with it. */
  words: ReactNode
  /** The whole of it in words, for whoever does not see it. */
  told: string
}

interface Props {
  stages: readonly string[]
  stretches: readonly Stretch[]
  threads: readonly ThreadLine[]
}

/** Height of a lane, and how much of it no thread uses; room for the words behind the gate, px. */
const LANE = 68
const CLEAR = 9
const WORDS = { wide: 172, narrow: 132 }

/** The tastes of the sauce as threads on the ribbon's own time: each rises as the pot shrinks, falls with what goes in,
 * and runs through the gate of what is liked. What is only planned is dotted. */
export function Threads({ stages, stretches, threads }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(1224)
  const narrow = width < 640
  const { placed, stations } = layRibbon(stages, stretches, width, narrow)
  // The words stand where it is served; where that is too narrow for them, the threads are drawn a little shorter.
  const served = stations.at(-1)?.x0 ?? width
  const gate = Math.min(served, width - (narrow ? WORDS.narrow : WORDS.wide)) - 6
  const x = (at: number) => (Math.min(at, served) * (gate - 14)) / served
  const now = x(placed.findLast(({ stretch }) => !stretch.planned)?.x1 ?? 0)
  return (
    <div ref={ref} className="relative min-w-0">
      <svg width={gate + 14} height={LANE * threads.length} role="img" aria-label={`Tastes: ${threads.map((one) => one.told).join('; ')}`} className="block">
        {threads.map((thread, lane) => {
          const y = (level: number) => (lane + 1) * LANE - CLEAR - level * (LANE - 2 * CLEAR)
          const run = (planned: boolean) =>
            placed
              .map(({ stretch, x0, x1 }, i) => ({ stretch, line: eased(x(x0), x(x1), y(thread.starts[i] ?? 0), y(thread.ends[i] ?? 0)) }))
              .filter(({ stretch }) => stretch.planned === planned)
              .map(({ line }, i) => `${i === 0 ? 'M' : 'L'}${line}`)
              .join('')
          return (
            <g key={thread.key}>
              {lane > 0 && <line x1={0} x2={gate + 14} y1={lane * LANE} y2={lane * LANE} stroke="var(--line)" />}
              <text x={0} y={y(thread.starts[0] ?? 0) < lane * LANE + 28 ? (lane + 1) * LANE - 8 : lane * LANE + 19} fontSize="16" fontWeight="600" fill={thread.ink}>
                {thread.label}
              </text>
              <line x1={now} x2={now} y1={y(thread.now.high)} y2={y(thread.now.low)} stroke={thread.ink} strokeWidth="9" strokeLinecap="round" opacity="0.28" />
              <path d={run(false)} fill="none" stroke={thread.ink} strokeWidth="4.5" strokeLinejoin="round" />
              <path d={run(true)} fill="none" stroke={thread.ink} strokeWidth="4.5" strokeDasharray="1.5 8" strokeLinecap="round" />
              <path d={`M${gate + 12},${y(thread.gate_high)}H${gate}V${y(thread.gate_low)}H${gate + 12}`} fill="none" stroke="var(--ink)" strokeWidth="4" />
              <circle cx={now} cy={y(thread.now.best)} r="8" fill="var(--ground)" stroke={thread.ink} strokeWidth="4.5" />
            </g>
          )
        })}
        <line x1={now} x2={now} y1={0} y2={LANE * threads.length} stroke="var(--ink)" strokeWidth="1.5" opacity="0.55" />
      </svg>
      <div className="absolute inset-y-0 right-0 grid" style={{ left: gate + 22, gridTemplateRows: `repeat(${threads.length}, ${LANE}px)` }}>
        {threads.map((thread) => (
          <div key={thread.key} className="flex min-w-0 items-center">
            {thread.words}
          </div>
        ))}
      </div>
    </div>
  )
}
