import { useId } from 'react'
import { sauce } from './tone'

interface Props {
  stopMm: number
  /** Where it is thought to stand, and how it is said. */
  nowMm: number
  nowLabel: string
  stopLabel: string
  ceilingMm: number | null
  /** How far the method in use may be off, in mm of depth. */
  errorMm: number
  tone: number
}

const SIZE = { wide: 224, high: 264 }
/** Four times the pot beside it, which shows about two pixels a millimetre. */
const PX_PER_MM = 8.5
const SKEWER = { left: 92, right: 126 }

/** The skewer around its stop mark, seen through a lens: where to stop, how sure a look is, and what comes towards it. */
export function Lens({ stopMm, nowMm, nowLabel, stopLabel, ceilingMm, errorMm, tone }: Props) {
  const id = useId()
  // The mark stands a little below the middle: what comes towards it comes from above.
  const y = (mm: number) => SIZE.high * 0.58 - (mm - stopMm) * PX_PER_MM
  const [top, bottom] = [0, SIZE.high].map((px) => stopMm - (px - SIZE.high * 0.58) / PX_PER_MM) as [number, number]
  const ticks = Array.from({ length: Math.max(Math.floor(top) - Math.ceil(Math.max(bottom, 0)) + 1, 0) }, (_, i) => Math.ceil(Math.max(bottom, 0)) + i)
  const surface = Math.min(Math.max(y(nowMm), 6), SIZE.high - 6)
  const above = nowMm > top - 1
  const below = nowMm < bottom + 1
  const near = Math.abs(y(nowMm) - y(stopMm)) < 22
  return (
    <svg
      viewBox={`0 0 ${SIZE.wide} ${SIZE.high}`}
      className="block w-full"
      role="img"
      aria-label={`The skewer from near: stop at ${stopLabel}, give or take ${errorMm.toFixed(1)} mm; now ${nowLabel}`}
    >
      <defs>
        <clipPath id={`${id}-glass`}>
          <rect x="2" y="2" width={SIZE.wide - 4} height={SIZE.high - 4} rx="28" />
        </clipPath>
      </defs>
      <g clipPath={`url(#${id}-glass)`}>
        <rect width={SIZE.wide} height={SIZE.high} fill="var(--panel)" />
        <rect className="eases" y={surface} width={SIZE.wide} height={SIZE.high} fill={sauce(tone)} />
        <rect x={SKEWER.left} width={SKEWER.right - SKEWER.left} height={SIZE.high} fill="var(--wood)" stroke="var(--wood-ink)" strokeWidth="1.5" />
        {ticks.map((mm) => (
          <g key={mm} stroke="var(--wood-ink)">
            <line x1={SKEWER.left} x2={SKEWER.left + (mm % 5 === 0 ? 24 : 13)} y1={y(mm)} y2={y(mm)} strokeWidth={mm % 5 === 0 ? 2.4 : 1.3} />
          </g>
        ))}
        <rect x="0" width={SIZE.wide} y={y(stopMm + errorMm)} height={Math.max(y(stopMm - errorMm) - y(stopMm + errorMm), 2)} fill="var(--done)" opacity="0.3" />
        <line x1="0" x2={SIZE.wide} y1={y(stopMm)} y2={y(stopMm)} stroke="#fffdf8" strokeWidth="7" />
        <line x1="0" x2={SIZE.wide} y1={y(stopMm)} y2={y(stopMm)} stroke="var(--done)" strokeWidth="4" />
        {ceilingMm !== null && ceilingMm > bottom && (
          <>
            <rect y={y(ceilingMm)} width={SIZE.wide} height={SIZE.high} fill="var(--salt)" opacity="0.35" />
            <line x1="0" x2={SIZE.wide} y1={y(ceilingMm)} y2={y(ceilingMm)} stroke="#c9c6ff" strokeWidth="3" strokeDasharray="9 6" />
            <text x="10" y={Math.min(y(ceilingMm) + 20, SIZE.high - 10)} fontSize="15" fontWeight="700" fill="#fff" stroke="#2b2a55" strokeWidth="4" paintOrder="stroke">
              too salty
            </text>
          </>
        )}
        <g className="eases">
          <line x1="0" x2={SIZE.wide} y1={surface} y2={surface} stroke="var(--ink)" strokeWidth="3" strokeDasharray="2 6" strokeLinecap="round" />
          {above ? (
            <path d={`M26,34l11,-16l11,16z`} fill="var(--ink)" />
          ) : below ? (
            <path d={`M26,${SIZE.high - 34}l11,16l11,-16z`} fill="var(--ink)" />
          ) : null}
          <text x={above ? 56 : 10} y={above ? 32 : near && surface < y(stopMm) ? surface - 9 : surface - 8} fontSize="17" fontWeight="700" fill="var(--ink)" stroke="var(--panel)" strokeWidth="5" paintOrder="stroke">
            {above || below ? '' : 'now'}
          </text>
        </g>
        <text x={SIZE.wide - 10} y={y(stopMm) - 9} textAnchor="end" fontSize="17" fontWeight="700" fill="#fffdf8" stroke="#1d4d2c" strokeWidth="5" paintOrder="stroke">
          stop
        </text>
      </g>
      <rect x="2" y="2" width={SIZE.wide - 4} height={SIZE.high - 4} rx="28" fill="none" stroke="var(--steel)" strokeWidth="4" />
    </svg>
  )
}
