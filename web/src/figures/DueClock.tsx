interface Props {
  now: number
  due: number
  /** Which time of day a time is, as a share of twelve hours. */
  turn: (at: number) => number
}

const SIZE = 132
const R = 56

/** The face of a clock: where the hand stands, and the stretch until it is due. */
export function DueClock({ now, due, turn }: Props) {
  const at = (share: number, radius: number) => {
    const angle = 2 * Math.PI * share - Math.PI / 2
    return `${SIZE / 2 + radius * Math.cos(angle)},${SIZE / 2 + radius * Math.sin(angle)}`
  }
  const [from, to] = [turn(now), turn(due)]
  const stretch = (to - from + 1) % 1
  return (
    <svg width={SIZE} height={SIZE} aria-hidden="true" className="block shrink-0">
      <circle cx={SIZE / 2} cy={SIZE / 2} r={R} fill="var(--panel)" stroke="var(--steel)" strokeWidth="4" />
      {due > now && <path d={`M${SIZE / 2},${SIZE / 2}L${at(from, R - 4)}A${R - 4},${R - 4} 0 ${stretch > 0.5 ? 1 : 0} 1 ${at(to, R - 4)}Z`} fill="var(--vapour)" opacity="0.55" />}
      {Array.from({ length: 12 }, (_, i) => (
        <polyline key={i} points={`${at(i / 12, R - 4)} ${at(i / 12, R - (i % 3 === 0 ? 14 : 9))}`} stroke="var(--ink)" strokeWidth={i % 3 === 0 ? 3 : 1.5} />
      ))}
      <polyline points={`${SIZE / 2},${SIZE / 2} ${at(to, R - 2)}`} stroke="var(--heat)" strokeWidth="4" strokeLinecap="round" />
      <polyline points={`${SIZE / 2},${SIZE / 2} ${at(from, R - 18)}`} stroke="var(--ink)" strokeWidth="6" strokeLinecap="round" />
      <circle cx={SIZE / 2} cy={SIZE / 2} r="5" fill="var(--ink)" />
    </svg>
  )
}
