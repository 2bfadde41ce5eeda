import { scaleLinear } from 'd3-scale'
import { area, line } from 'd3-shape'
import { timeTicks } from 'd3-time'
import { useId } from 'react'
import { sauce } from './tone'
import { useWidth } from './useSize'

export interface StoryPoint {
  at: number
  ml: number
  tone: number
}

export interface Leader {
  at: number
  ml: number
  what: string
  did: string
}

interface Props {
  happened: readonly StoryPoint[]
  foreseen: readonly StoryPoint[]
  leaders: readonly Leader[]
  clock: (at: number) => string
}

/** Rows of words above the ribbon, px, and the room a letter of each line takes. */
const ROW = 46
const LETTER = { what: 8.6, did: 7.4 }
const DEEP = 150
const FOOT = 30

/** What happened, filled, over what was foreseen, dashed, on one scale; each difference on a leader with its reason. */
export function StoryRibbon({ happened, foreseen, leaders, clock }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(1180)
  const id = useId()
  const narrow = width < 640
  const all = [...happened, ...foreseen]
  const begin = Math.min(...all.map(({ at }) => at))
  const end = Math.max(...all.map(({ at }) => at), begin + 60_000)
  const placed = narrow ? [] : inRows(leaders, (at) => ((at - begin) / (end - begin)) * width, width)
  const rows = Math.max(...placed.map(({ row }) => row + 1), 0)
  const top = rows * ROW + 18
  const height = top + DEEP + FOOT
  const x = scaleLinear([begin, end], [0, width])
  const y = scaleLinear([0, Math.max(...all.map(({ ml }) => ml))], [top + DEEP, top])
  const filled = area<StoryPoint>((p) => x(p.at), y(0), (p) => y(p.ml))
  const dashed = line<StoryPoint>((p) => x(p.at), (p) => y(p.ml))
  const last = happened.at(-1)
  const ends = foreseen.at(-1)
  if (!last || !ends) return null
  return (
    <div ref={ref} className="min-w-0">
      <svg width={width} height={height} role="img" aria-label={`What happened over what was foreseen. ${leaders.map(({ what, did }) => `${what}: ${did}`).join('; ')}`} className="block overflow-visible">
        <defs>
          <linearGradient id={id} gradientUnits="userSpaceOnUse" x1="0" x2={x(last.at)} y1="0" y2="0">
            {happened.map((p, i) => (
              <stop key={i} offset={(p.at - begin) / Math.max(last.at - begin, 1)} stopColor={sauce(p.tone)} />
            ))}
          </linearGradient>
        </defs>
        <path d={filled([...happened]) ?? ''} fill={`url(#${id})`} />
        <path d={dashed([...foreseen]) ?? ''} fill="none" stroke="var(--ground)" strokeWidth="5" opacity="0.7" />
        <path d={dashed([...foreseen]) ?? ''} fill="none" stroke="var(--ink)" strokeWidth="2.5" strokeDasharray="9 6" />
        <line x1={x(ends.at)} x2={x(ends.at)} y1={y(ends.ml)} y2={y(0)} stroke="var(--ink)" strokeWidth="2.5" strokeDasharray="9 6" />
        <line x1={0} x2={width} y1={y(0) + 2} y2={y(0) + 2} stroke="var(--line)" strokeWidth="3" />
        {timeTicks(new Date(begin), new Date(end), Math.max(2, Math.floor(width / 170))).map((date) => (
          <text key={+date} x={x(+date)} y={height - 8} fontSize="14" textAnchor={x(+date) < 20 ? 'start' : x(+date) > width - 24 ? 'end' : 'middle'} fill="var(--quiet)">
            {clock(+date)}
          </text>
        ))}
        {placed.map(({ leader, left, row }, i) => (
          <g key={i}>
            <line x1={x(leader.at)} x2={x(leader.at)} y1={row * ROW + 4} y2={y(leader.ml)} stroke="var(--ink)" strokeWidth="1.5" />
            <circle cx={x(leader.at)} cy={y(leader.ml)} r="5" fill="var(--ink)" />
            <text x={left} y={row * ROW + 15} fontSize="16" fontWeight="700" fill="var(--ink)">
              {leader.what}
            </text>
            <text x={left} y={row * ROW + 33} fontSize="14" fill="var(--quiet)">
              {leader.did}
            </text>
          </g>
        ))}
        {narrow &&
          leaders.map((leader, i) => {
            // Those of one place stand above each other.
            const below = leaders.slice(0, i).filter(({ at }) => Math.abs(x(at) - x(leader.at)) < 24).length
            return (
              <g key={i} transform={`translate(${Math.min(Math.max(x(leader.at), 11), width - 11)} ${y(leader.ml) - 24 * below})`}>
                <circle r="11" fill="var(--ink)" />
                <text y={5} fontSize="14" fontWeight="700" textAnchor="middle" fill="var(--ground)">
                  {i + 1}
                </text>
              </g>
            )
          })}
      </svg>
      <p className="flex flex-wrap gap-x-6 text-sm text-quiet">
        <span>
          <span aria-hidden="true" className="mr-1.5 inline-block h-3 w-6 rounded-sm align-middle" style={{ background: sauce(0.55) }} />
          as it went
        </span>
        <span>
          <span aria-hidden="true" className="mr-1.5 inline-block w-6 border-t-2 border-dashed border-ink align-middle" />
          as foreseen when the way was taken
        </span>
      </p>
      {narrow && leaders.length > 0 && (
        <ol className="mt-2 grid gap-1">
          {leaders.map(({ what, did }, i) => (
            <li key={i}>
              <b>
                {i + 1}. {what}
              </b>
              <span className="text-quiet">: {did}</span>
            </li>
          ))}
        </ol>
      )}
    </div>
  )
}

/** Words beside their leaders, each in the lowest row where they touch no others. */
function inRows(leaders: readonly Leader[], x: (at: number) => number, width: number) {
  const ends: number[] = []
  return [...leaders]
    .sort((a, b) => a.at - b.at)
    .map((leader) => {
      const wide = Math.max(leader.what.length * LETTER.what, leader.did.length * LETTER.did)
      // Beside its own line, so that no line runs through words.
      const right = x(leader.at) + 8
      const left = right + wide <= width ? right : Math.max(right - 16 - wide, 0)
      const free = ends.findIndex((end) => end + 16 < left)
      const row = free < 0 ? ends.length : free
      ends[row] = left + wide
      return { leader, left, row }
    })
}
