import type { ReactNode } from 'react'
import type { Schemas } from '../api/client'
import { Spoon } from '../figures/Spoon'
import { sauce } from '../figures/tone'

type Name = Schemas['ExplainedOut']['drawing']

const STEEL = { fill: 'none', stroke: 'var(--steel)', strokeWidth: 5, strokeLinejoin: 'round', strokeLinecap: 'round' } as const
const INK = { stroke: 'var(--ink)', strokeWidth: 2.5, strokeLinecap: 'round', fill: 'none' } as const

interface PanProps {
  x: number
  wide: number
  /** How much of it is full, 0 to 1. */
  full: number
  tone?: number
  fat?: number
  children?: ReactNode
}

const RIM = 34
const FLOOR = 104

/** A pan cut through, its liquid to a share of its height, and grains of salt or taste that stay when water goes. */
function Pan({ x, wide, full, tone = 0.35, fat = 0, children }: PanProps) {
  const top = FLOOR - (FLOOR - RIM) * full
  return (
    <g>
      <rect x={x} y={top} width={wide} height={FLOOR - top} fill={sauce(tone)} />
      {fat > 0 && <rect x={x} y={top} width={wide} height={fat} fill="var(--fat)" stroke="#a8842c" strokeWidth="1" />}
      {children}
      <path d={`M${x - 2},${RIM}V${FLOOR + 2}H${x + wide + 2}V${RIM}`} {...STEEL} />
    </g>
  )
}

/** As many grains in each: what boils away is water. */
function Grains({ x, wide, full, ink }: { x: number; wide: number; full: number; ink: string }) {
  const top = FLOOR - (FLOOR - RIM) * full
  return Array.from({ length: 12 }, (_, i) => <rect key={i} x={x + 6 + ((i * 37) % (wide - 14))} y={top + 6 + ((i * 23) % Math.max(FLOOR - top - 14, 1))} width="6" height="6" fill={ink} />)
}

function Skewer({ x, wet }: { x: number; wet: number }) {
  return (
    <g>
      <rect x={x - 3} y={12} width="6" height={FLOOR - 13} fill="var(--wood)" stroke="var(--wood-ink)" strokeWidth="1" />
      <rect x={x - 3} y={wet} width="6" height={FLOOR - 1 - wet} fill="var(--wood-ink)" opacity="0.7" />
    </g>
  )
}

function Jug({ x }: { x: number }) {
  return (
    <g>
      <rect x={x + 2} y={52} width="46" height="50" fill={sauce(0.35)} />
      <rect x={x + 2} y={46} width="46" height="7" fill="var(--fat)" />
      <path d={`M${x},28V104H${x + 50}V34L${x + 58},26M${x},46h-12v34h12`} {...STEEL} strokeWidth="3.5" />
      {[44, 58, 72, 86].map((y) => (
        <path key={y} d={`M${x + 36},${y}h12`} {...INK} />
      ))}
    </g>
  )
}

function Steam({ x }: { x: number }) {
  return <path d={`M${x},26q-6,-6 0,-12t0,-10M${x + 16},26q-6,-6 0,-12t0,-10`} fill="none" stroke="var(--vapour)" strokeWidth="3.5" strokeLinecap="round" />
}

const Arrow = ({ x, y = 74 }: { x: number; y?: number }) => <path d={`M${x},${y}h22m-8,-7l8,7l-8,7`} {...INK} />

/** Two pans, before and after the boil, with what stays in both. */
const boiled = (ink: string) => (
  <>
    <Pan x={14} wide={70} full={0.85} tone={0.25}>
      <Grains x={14} wide={70} full={0.85} ink={ink} />
    </Pan>
    <Steam x={42} />
    <Arrow x={98} />
    <Pan x={134} wide={70} full={0.42} tone={0.7}>
      <Grains x={134} wide={70} full={0.42} ink={ink} />
    </Pan>
  </>
)

const spoons = (steps: readonly number[], size: number) => (
  <span className="flex flex-wrap gap-1">
    {steps.map((step) => (
      <Spoon key={step} step={step} size={size} />
    ))}
  </span>
)

const drawings: Record<Name, ReactNode> = {
  spoons: spoons([0, 1, 2, 3, 4, 5], 46),
  spoon_of_jus: spoons([1], 84),
  spoon_of_nappe: spoons([3], 84),
  spoon_of_gravy: spoons([4], 84),
  strength: boiled('#3b1a0b'),
  salt: boiled('var(--salt)'),
  ceiling: (
    <Pan x={70} wide={80} full={0.62} tone={0.5}>
      <rect x={70} y={76} width="80" height="28" fill="var(--salt)" opacity="0.45" />
      <path d="M62,76h96" stroke="var(--salt)" strokeWidth="3" strokeDasharray="7 4" />
    </Pan>
  ),
  measures: (
    <>
      <Jug x={16} />
      <Pan x={92} wide={50} full={0.5} />
      <Skewer x={117} wet={69} />
      <g transform="translate(76 0)">
        <Pan x={92} wide={44} full={0.4} />
        <path d="M84,112h60l6,12h-72z" {...INK} fill="var(--panel)" />
      </g>
    </>
  ),
  jug: <Jug x={84} />,
  dip: (
    <>
      <Pan x={60} wide={100} full={0.5} />
      <Skewer x={110} wet={69} />
      <path d="M128,69V103m-5,-5l5,6l5,-6M123,74l5,-6l5,6" {...INK} />
    </>
  ),
  scale: (
    <>
      <g transform="translate(0 -12)">
        <Pan x={70} wide={80} full={0.5} />
      </g>
      <path d="M58,100h104l8,22H50z" {...INK} fill="var(--panel)" />
      <rect x={92} y={104} width="36" height="13" rx="3" fill="var(--ink)" />
    </>
  ),
  spread: (
    <>
      <path d="M20,90H200" {...INK} />
      <rect x={62} y={58} width="96" height="14" rx="7" fill="var(--salt)" opacity="0.4" />
      <path d="M110,46V84" stroke="var(--salt)" strokeWidth="5" strokeLinecap="round" />
      <rect x={90} y={100} width="40" height="14" rx="7" fill="var(--salt)" opacity="0.7" />
    </>
  ),
  fat: (
    <Pan x={60} wide={100} full={0.7} fat={13}>
      {Array.from({ length: 9 }, (_, i) => (
        <circle key={i} cx={70 + ((i * 31) % 82)} cy={74 + ((i * 17) % 26)} r="2.6" fill="var(--fat)" />
      ))}
    </Pan>
  ),
  mark: (
    <Pan x={60} wide={100} full={0.8} tone={0.4}>
      <path d="M54,80h112" stroke="var(--done)" strokeWidth="4" />
      <path d="M110,54v18m-6,-6l6,7l6,-7" {...INK} />
    </Pan>
  ),
  roux: (
    <>
      <rect x={24} y={64} width="50" height="40" rx="6" fill="var(--fat)" stroke="#a8842c" />
      <path d="M96,84h20M106,74v20" {...INK} />
      <path d="M134,104Q140,64 164,62Q190,64 196,104Z" fill="#f1e6cf" stroke="#a89a78" strokeWidth="1.5" />
    </>
  ),
  slurry: (
    <>
      <path d="M28,104Q32,80 48,78Q66,80 70,104Z" fill="#fffdf4" stroke="#a89a78" strokeWidth="1.5" />
      <path d="M86,84h20M96,74v20" {...INK} />
      {[122, 162].map((x) => (
        <g key={x}>
          <rect x={x + 3} y={66} width="26" height="36" fill="var(--vapour)" opacity="0.55" />
          <path d={`M${x},54V104H${x + 32}V54`} {...STEEL} strokeWidth="3" />
        </g>
      ))}
    </>
  ),
  gelatin: (
    <>
      <ellipse cx="110" cy="96" rx="86" ry="14" fill="var(--panel)" stroke="var(--steel)" strokeWidth="3" />
      <path d="M72,92Q76,62 110,60Q144,62 148,92Q110,104 72,92Z" fill={sauce(0.6)} />
      <path d="M88,74Q96,67 108,67" stroke="#fff" strokeWidth="4" strokeLinecap="round" opacity="0.5" fill="none" />
    </>
  ),
  burner: (
    <>
      <Pan x={60} wide={100} full={0.55} />
      <Steam x={104} />
      <path d="M78,124q-5,-6 0,-12M100,124q-5,-6 0,-12M122,124q-5,-6 0,-12M144,124q-5,-6 0,-12" stroke="var(--heat)" strokeWidth="4" strokeLinecap="round" fill="none" />
    </>
  ),
  looks: (
    <>
      <defs>
        <pattern id="planned-hatch" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="4" height="8" fill={sauce(0.6)} opacity="0.55" />
        </pattern>
      </defs>
      <rect x={14} y={44} width="60" height="60" fill={sauce(0.4)} />
      <rect x={80} y={58} width="60" height="46" fill={sauce(0.5)} opacity="0.35" />
      <path d="M80,58h60" stroke="var(--ink)" strokeWidth="3" strokeDasharray="2 6" strokeLinecap="round" />
      <rect x={146} y={70} width="60" height="34" fill="url(#planned-hatch)" stroke={sauce(0.6)} strokeWidth="1.5" />
    </>
  ),
  tasting: spoons([2], 84),
  ledger: (
    <>
      {[
        [sauce(0.2), 92],
        ['var(--fat)', 16],
        ['var(--salt)', 8],
        ['#3b1a0b', 22],
      ].reduce<{ at: number; bars: ReactNode[] }>(
        ({ at, bars }, [fill, wide]) => ({ at: at + Number(wide) + 3, bars: [...bars, <rect key={at} x={at} y={62} width={wide} height="34" fill={String(fill)} />] }),
        { at: 36, bars: [] },
      ).bars}
      <path d="M82,56q-6,-6 0,-12t0,-10M102,56q-6,-6 0,-12t0,-10" fill="none" stroke="var(--vapour)" strokeWidth="3.5" strokeLinecap="round" />
    </>
  ),
}

/** What a word means, as a picture: small, and told again in the words beside it. */
export function Drawing({ of }: { of: Name }) {
  const drawn = drawings[of]
  const spoon = of === 'spoons' || of === 'tasting' || of === 'spoon_of_jus' || of === 'spoon_of_nappe' || of === 'spoon_of_gravy'
  return (
    <div aria-hidden="true" className="grid min-h-28 place-items-center">
      {spoon ? (
        drawn
      ) : (
        <svg viewBox="0 0 220 128" className="h-28 w-auto max-w-full">
          {drawn}
        </svg>
      )}
    </div>
  )
}
