import { spread } from './geometry'

interface Props {
  low: number
  best: number
  high: number
  wanted: number | null
  ceiling: number | null
  height: number
}

const WIDE = 200
const COLUMN = { x: 6, width: 34 }

/** Salt by weight, standing upright: where it is likely to be, where it should be, and where it must not go. */
export function SaltScale({ low, best, high, wanted, ceiling, height }: Props) {
  const top = Math.max(2, high * 1.1, (ceiling ?? 0) * 1.2)
  const y = (percent: number) => height - 8 - (percent / top) * (height - 16)
  const percent = (value: number) => `${value.toFixed(2)}\u00a0%`
  const words = [
    ...(ceiling === null ? [] : [{ key: 'ceiling', at: ceiling, text: percent(ceiling), note: 'too salty above', ink: 'var(--salt)', bold: 600 }]),
    ...(wanted === null ? [] : [{ key: 'yours', at: wanted, text: percent(wanted), note: 'yours', ink: 'var(--done)', bold: 700 }]),
    { key: 'now', at: best, text: percent(best), note: `now, ${low.toFixed(2)} to ${high.toFixed(2)}`, ink: 'var(--ink)', bold: 700 },
  ]
  const at = spread(words.map((word) => y(word.at)), 38, 18, height - 20)
  return (
    <svg
      width={WIDE}
      height={height}
      role="img"
      aria-label={`Salt: ${words.map((word) => `${word.note} ${word.text}`).join('; ')}`}
      className="block shrink-0"
    >
      <rect x={COLUMN.x} y={8} width={COLUMN.width} height={height - 16} rx="8" fill="var(--panel)" stroke="var(--line)" strokeWidth="2" />
      {ceiling !== null && (
        <rect x={COLUMN.x} y={8} width={COLUMN.width} height={Math.max(y(ceiling) - 8, 0)} rx="8" fill="var(--salt)" opacity="0.25" />
      )}
      <rect x={COLUMN.x + 9} y={y(high)} width={COLUMN.width - 18} height={Math.max(y(low) - y(high), 3)} rx="5" fill="var(--salt)" opacity="0.5" />
      {words.map((word, i) => (
        <g key={word.key} fill={word.ink}>
          <polyline
            points={`${COLUMN.x},${y(word.at)} ${COLUMN.x + COLUMN.width + 4},${y(word.at)} ${COLUMN.x + COLUMN.width + 18},${at[i] ?? 0}`}
            fill="none"
            stroke={word.ink}
            strokeWidth={word.key === 'now' ? 4 : 2.5}
            strokeDasharray={word.key === 'ceiling' ? '6 4' : undefined}
          />
          <text x={COLUMN.x + COLUMN.width + 24} y={(at[i] ?? 0) + 4} fontSize="18" fontWeight={word.bold}>
            {word.text}
          </text>
          <text x={COLUMN.x + COLUMN.width + 24} y={(at[i] ?? 0) + 19} fontSize="13.5">
            {word.note}
          </text>
        </g>
      ))}
    </svg>
  )
}
