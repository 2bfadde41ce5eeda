import { spread } from './geometry'

interface Props {
  marks: readonly { key: string; mm: number; label: string }[]
  /** How deep the pan is. */
  deepMm: number
}

/** As long as a sheet of paper has room for, mm. */
export const LONGEST_MM = 210
const WIDE = 78
const STICK = { x: 4, width: 8 }

/** The skewer with its marks at true size, the bottom of the pan below: for paper, where a millimetre is one. */
export function TrueSkewer({ marks, deepMm }: Props) {
  const long = Math.min(deepMm, LONGEST_MM)
  const high = long + 8
  const y = (mm: number) => long + 4 - mm
  const there = marks.filter((mark) => mark.mm <= long)
  const at = spread(there.map((mark) => y(mark.mm)), 5, 3, high - 6)
  return (
    <svg width={`${WIDE}mm`} height={`${high}mm`} viewBox={`0 0 ${WIDE} ${high}`} role="img" aria-label={`The skewer at its true size. ${marks.map((mark) => mark.label).join('; ')}`}>
      <rect x={STICK.x} y={y(long)} width={STICK.width} height={long} fill="none" stroke="#000" strokeWidth="0.3" />
      {Array.from({ length: Math.floor(long / 5) + 1 }, (_, i) => i * 5).map((mm) => (
        <line key={mm} x1={STICK.x} x2={STICK.x + (mm % 10 === 0 ? 3.5 : 2)} y1={y(mm)} y2={y(mm)} stroke="#000" strokeWidth="0.2" />
      ))}
      {there.map((mark, i) => (
        <g key={mark.key}>
          <polyline points={`${STICK.x},${y(mark.mm)} ${STICK.x + STICK.width + 2},${y(mark.mm)} ${STICK.x + STICK.width + 5},${at[i] ?? 0}`} fill="none" stroke="#000" strokeWidth={mark.key === 'stop' ? 0.9 : 0.4} strokeDasharray={mark.key === 'ceiling' ? '2 1.2' : undefined} />
          <text x={STICK.x + STICK.width + 6} y={(at[i] ?? 0) + 1.4} fontSize="4" fontWeight={mark.key === 'stop' ? 700 : 400}>
            {mark.label}
          </text>
        </g>
      ))}
      <text x={STICK.x} y={high - 0.6} fontSize="3">
        the bottom of the pan
      </text>
    </svg>
  )
}
