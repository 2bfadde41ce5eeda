import { useWidth } from './useSize'

interface Props {
  steps: readonly { index: number; word: string; does: string }[]
  /** Where the sauce stands, 0 to 6 along the steps, and where its range ends. */
  now: number
  wanted: number | null
}

/** The ladder of body: how far a drop runs down a tilted plate at each step, and where the sauce stands. */
export function BodyLadder({ steps, now, wanted }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(720)
  const step = width / steps.length
  const height = 150
  const narrow = width < 520
  return (
    <div ref={ref} className="min-w-0">
      <svg width={width} height={height} role="img" className="block"
        aria-label={`Body: now ${steps[Math.floor(now)]?.word ?? ''}${wanted === null ? '' : `, wanted ${steps[wanted]?.word ?? ''}`}`}>
        {steps.map(({ index, word }) => {
          const x = index * step
          const here = Math.floor(now) === index
          const aim = wanted === index
          // A thin sauce runs far in a narrow trail; a thick one stands.
          const run = [68, 60, 50, 40, 31, 26][index] ?? 26
          const wide = [9, 13, 18, 24, 34, 48][index] ?? 48
          const cx = x + step / 2
          return (
            <g key={index}>
              <rect
                x={x + 3}
                y={4}
                width={step - 6}
                height={92}
                rx="10"
                fill="var(--panel)"
                stroke={aim ? 'var(--done)' : 'var(--line)'}
                strokeWidth={aim ? 3.5 : 1.5}
              />
              <rect x={cx - wide / 2} y={16} width={wide} height={run} rx={Math.min(wide, run) / 2} fill={here ? '#a3602c' : '#d8c3a0'} />
              <text
                x={cx}
                y={118}
                textAnchor="middle"
                fontSize={narrow ? 12 : 15}
                fontWeight={here || aim ? 700 : 400}
                fill={aim ? 'var(--done)' : 'var(--ink)'}
              >
                {word}
              </text>
            </g>
          )
        })}
        <path d={`M${now * step},126l8,14h-16z`} fill="var(--ink)" />
        <text
          x={Math.min(Math.max(now * step, 24), width - 24) + (now * step > width - 60 ? -14 : 14)}
          y={140}
          fontSize="14"
          fontWeight="700"
          textAnchor={now * step > width - 60 ? 'end' : 'start'}
          fill="var(--ink)"
        >
          now
        </text>
      </svg>
    </div>
  )
}
