import { useId } from 'react'
import { sauce } from './tone'

/** What a sauce of a school looks like on a plate: how clear, how bright, how dark. */
const LOOKS = {
  clear: { tone: 0.55, film: 0.72, shine: 0.85, grain: 0 },
  glossy: { tone: 0.55, film: 0.88, shine: 0.6, grain: 0 },
  cloudy: { tone: 0.42, film: 1, shine: 0.18, grain: 0 },
  brown: { tone: 0.78, film: 1, shine: 0.22, grain: 0 },
  dark: { tone: 1, film: 1, shine: 0.25, grain: 0 },
  grainy: { tone: 0.45, film: 1, shine: 0.1, grain: 11 },
} as const

export type Look = keyof typeof LOOKS

/** A dollop on a plate, its pattern seen through it as far as it is clear. */
export function Dollop({ look, size = 64 }: { look: Look; size?: number }) {
  const id = useId()
  const { tone, film, shine, grain } = LOOKS[look]
  return (
    <svg width={size} height={size * 0.75} viewBox="0 0 80 60" aria-hidden="true" className="block shrink-0">
      <ellipse cx="40" cy="34" rx="38" ry="23" fill="var(--panel)" stroke="var(--steel)" strokeWidth="2" />
      <defs>
        <clipPath id={id}>
          <path d="M14,36Q14,22 34,18Q56,14 64,28Q70,42 50,48Q20,52 14,36Z" />
        </clipPath>
      </defs>
      <path d="M12,26H68M12,34H68M12,42H68" stroke="var(--steel)" strokeWidth="2" />
      <path d="M14,36Q14,22 34,18Q56,14 64,28Q70,42 50,48Q20,52 14,36Z" fill={sauce(tone)} opacity={film} />
      <g clipPath={`url(#${id})`}>
        {Array.from({ length: grain }, (_, i) => (
          <circle key={i} cx={18 + ((i * 29) % 46)} cy={22 + ((i * 17) % 24)} r="1.6" fill="#fff6e0" opacity="0.7" />
        ))}
        <path d="M26,26Q36,20 52,24" stroke="#fff" strokeWidth="5" strokeLinecap="round" fill="none" opacity={shine} />
      </g>
    </svg>
  )
}
