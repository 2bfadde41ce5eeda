import { FAT_EDGE, sauce } from './tone'

interface Props {
  /** Of the fat that floats on it now, so much is on it still: its line is drawn to that. */
  share: number
  tone: number
}

const WIDE = 88
const HIGH = 66
const FLOOR = HIGH - 4
/** Where the liquid ends, and how thick all of the fat is drawn above it, px. */
const SURFACE = 38
const ALL = 28
/** Drops in the layer, as shares of its width. */
const DROPS = [0.18, 0.37, 0.55, 0.74, 0.88]

/** A pot and the fat line on it: a layer with drops in it, and an edge in ink, told from the sauce by more than its colour. */
export function FatLine({ share, tone }: Props) {
  const thick = Math.max(ALL * Math.min(share, 1), 1.5)
  const [left, right] = [6, WIDE - 6]
  return (
    <svg width={WIDE} height={HIGH} aria-hidden="true" className="block">
      <rect x={left} y={SURFACE} width={right - left} height={FLOOR - SURFACE} fill={sauce(tone)} />
      <rect x={left} y={SURFACE - thick} width={right - left} height={thick} fill="var(--fat)" />
      <line x1={left} x2={right} y1={SURFACE} y2={SURFACE} stroke={FAT_EDGE} strokeWidth="2" />
      {thick > 9 &&
        DROPS.map((at, i) => (
          <circle key={at} cx={left + at * (right - left)} cy={SURFACE - thick * (i % 2 ? 0.35 : 0.62)} r={Math.min(thick / 6, 3.5)} fill="none" stroke={FAT_EDGE} strokeWidth="1.5" />
        ))}
      <path d={`M${left - 2},6V${FLOOR}H${right + 2}V6`} fill="none" stroke="var(--steel)" strokeWidth="4" strokeLinejoin="round" />
    </svg>
  )
}
