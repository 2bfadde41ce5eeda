import { useId } from 'react'
import { sauce } from './tone'

/**
 * What the back of a spoon looks like at each step, a finger drawn across: how much the film hides, how wide the line
 * stays and how far it has run shut, what stands up beside it, and what drips off.
 */
const LOOKS = [
  { film: 0, line: 0, shut: 0, ridge: 0, stream: [3, 58], drops: 0 },
  { film: 0.36, line: 3, shut: 1, ridge: 0, stream: [4.5, 34], drops: 0 },
  { film: 0.72, line: 11, shut: 0.8, ridge: 0, stream: [5, 9], drops: 2 },
  { film: 1, line: 13, shut: 0, ridge: 0, stream: [8, 5], drops: 0 },
  { film: 1, line: 15, shut: 0, ridge: 4, stream: [0, 0], drops: 0 },
  { film: 1, line: 18, shut: 0, ridge: 9, stream: [0, 0], drops: 0 },
] as const

/** One tone for all of them: they are told apart by what the film does. */
const TONE = 0.58
const LIGHT = '#d98f4e'

/** What stands over the edge of the spoon. */
const MOUND = 'M21,66Q17,44 34,38Q46,28 58,35Q72,27 84,40Q99,46 95,68Q98,96 82,110Q70,124 57,119Q40,123 31,106Q18,92 21,66Z'

/** The back of a spoon out of a sauce of that step, a finger drawn across it. */
export function Spoon({ step, size = 96 }: { step: number; size?: number }) {
  const id = useId()
  const look = LOOKS[Math.min(Math.max(step, 0), LOOKS.length - 1)] ?? LOOKS[0]
  const [wide, long] = look.stream
  const half = look.line / 2
  // Where it runs shut, the edges of the line meet towards the middle.
  const pinch = half * (1 - look.shut)
  return (
    <svg width={size} height={size * 1.4} viewBox="0 -20 120 168" aria-hidden="true" className="block shrink-0">
      <defs>
        <linearGradient id={`${id}-steel`} x1="0" x2="1" y1="0" y2="1">
          <stop offset="0" stopColor="#f4f6f7" />
          <stop offset="0.55" stopColor="#c9d0d4" />
          <stop offset="1" stopColor="#98a3a9" />
        </linearGradient>
        <clipPath id={`${id}-bowl`}>
          {look.ridge > 6 ? <path d={MOUND} /> : <ellipse cx="58" cy="70" rx="35" ry="46" />}
        </clipPath>
      </defs>
      {wide > 0 && <rect x={52 - wide / 2} y={108} width={wide} height={long} rx={wide / 2} fill={sauce(TONE)} opacity={Math.max(look.film, 0.55)} />}
      {Array.from({ length: look.drops }, (_, i) => (
        <ellipse key={i} cx={52} cy={128 + i * 14} rx="3.4" ry="4.6" fill={sauce(TONE)} />
      ))}
      <g transform="rotate(14 58 70)">
        <path d="M53,26L55,-12Q58,-18 61,-12L63,26Z" fill={`url(#${id}-steel)`} stroke="#6d787e" strokeWidth="1.6" />
        <ellipse cx="58" cy="70" rx="35" ry="46" fill={`url(#${id}-steel)`} stroke="#6d787e" strokeWidth="2" />
        {look.ridge > 6 && (
          <path d={MOUND} fill={sauce(TONE)} stroke={sauce(0.85)} strokeWidth="2" />
        )}
        <g clipPath={`url(#${id}-bowl)`}>
          {look.film > 0 ? (
            <rect x="18" y="38" width="80" height="84" fill={sauce(TONE)} opacity={look.ridge > 6 ? 0 : look.film} />
          ) : (
            [[44, 56, 4], [66, 50, 3], [52, 78, 4.4], [70, 84, 3.4], [60, 100, 4]].map(([cx, cy, r]) => (
              <ellipse key={`${cx}`} cx={cx} cy={cy} rx={r} ry={(r ?? 0) * 1.3} fill={sauce(TONE)} opacity="0.8" />
            ))
          )}
          {half > 0 && (
            <g>
              {look.ridge > 0 && <rect x="16" y={70 - half - look.ridge} width="84" height={look.ridge} fill={sauce(0.86)} />}
              <path
                d={`M16,${70 - half}C34,${70 - half} 44,${70 - pinch} 58,${70 - pinch}S82,${70 - half * 0.7} 100,${70 - half}V${70 + half}C82,${70 + half * 0.7} 72,${70 + pinch} 58,${70 + pinch}S34,${70 + half} 16,${70 + half}Z`}
                fill={`url(#${id}-steel)`}
                opacity={look.film < 0.5 ? 0.75 : 1}
              />
              {look.ridge > 0 && <rect x="16" y={70 + half} width="84" height={look.ridge * 0.7} fill={LIGHT} />}
            </g>
          )}
          {look.film > 0 && look.ridge < 6 && <ellipse cx="43" cy="54" rx="5" ry="11" fill="#fff" opacity={0.22 + look.film * 0.12} transform="rotate(20 43 54)" />}
        </g>
        {look.film > 0 && look.ridge <= 6 && <ellipse cx="58" cy="70" rx="35" ry="46" fill="none" stroke="#6d787e" strokeWidth="2" />}
      </g>
    </svg>
  )
}
