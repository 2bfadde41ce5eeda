import { useWidth } from './useSize'

interface Props {
  now: number
  low: number
  high: number
  by: number
  /** What is to be started, and when. */
  starts: { key: string; label: string; at: number }[]
  /** A time of day, as it is shown. */
  clock: (at: number) => string
  ink: string
}

const FLOOR = 24

/** The evening from now to the table: when it will be ready, hatched, and when to start what goes with it. */
export function Evening({ now, low, high, by, starts, clock, ink }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(900)
  const ends = Math.max(by, high) + (Math.max(by, high) - now) * 0.04
  const x = (at: number) => 6 + ((at - now) / Math.max(ends - now, 60_000)) * (width - 12)
  const ahead = starts.filter(({ at }) => at > now)
  const stops = [...ahead.map(({ label, at }) => ({ text: `${clock(at)} ${label}`, pole: x(at), table: false })), { text: `${clock(by)} on the table`, pole: x(by), table: true }]
  const shown = inOneRow(stops, width)
  return (
    <div ref={ref}>
      <svg width={width} height={FLOOR + 10} role="img" aria-label={`Ready ${clock(low)} to ${clock(high)}. ${stops.map(({ text }) => text).join(', ')}.`}>
        <line x1={x(now)} x2={x(ends)} y1={FLOOR} y2={FLOOR} stroke="var(--line)" strokeWidth="4" />
        <line x1={x(low)} x2={Math.max(x(high), x(low) + 6)} y1={FLOOR} y2={FLOOR} stroke={ink} strokeWidth="10" strokeDasharray="4 3" />
        {stops.map(({ text, pole, table }, index) => (
          <g key={text}>
            <line x1={pole} x2={pole} y1={FLOOR - 7} y2={FLOOR + (table ? 9 : 6)} stroke={table ? 'var(--ink)' : 'var(--quiet)'} strokeWidth={table ? 4 : 2} />
            {shown[index] !== undefined && (
              <text x={shown[index]} y={FLOOR - 9} fontSize="15" fill={table ? 'var(--ink)' : 'var(--quiet)'} fontWeight={table ? 700 : 400}>
                {text}
              </text>
            )}
          </g>
        ))}
      </svg>
    </div>
  )
}

/** Where each word begins in one row; none for what there is no room for: its time is on the line all the same. */
function inOneRow(stops: { text: string; pole: number; table: boolean }[], width: number): (number | undefined)[] {
  const last = stops[stops.length - 1]
  const room = last ? left(last, width) : width
  let end = 0
  return stops.map((stop) => {
    const begins = left(stop, width)
    if (begins < end || (!stop.table && begins + wide(stop.text) > room)) return undefined
    end = begins + wide(stop.text)
    return begins
  })
}

const wide = (text: string) => text.length * 7.6 + 12

const left = ({ text, pole }: { text: string; pole: number }, width: number) => Math.max(Math.min(pole - 12, width - wide(text)), 0)
