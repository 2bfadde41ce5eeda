import { Spoon } from './Spoon'
import { useWidth } from './useSize'

export interface SpoonStep {
  index: number
  /** Anyone's word, the trade's where it is another one, and what it does. */
  everyday: string
  trade: string | null
  does: string
}

interface Props {
  steps: readonly SpoonStep[]
  /** Where the sauce is thought to stand, 0 to 6 along the steps, with its range; not drawn where it is not known. */
  now: { low: number; best: number; high: number } | null
  wanted: number | null
  /** Called with the step whose spoon looks like the cook's. */
  onPick?: ((step: number) => void) | undefined
  busy?: boolean
}

/** The spoons of the ladder side by side, and where the sauce is thought to stand among them. */
export function SpoonRow({ steps, now, wanted, onPick, busy = false }: Props) {
  const [ref, width] = useWidth<HTMLDivElement>(720)
  const rows = width < 520 ? 2 : 1
  const each = width / (steps.length / rows)
  const track = rows === 1 && now !== null
  return (
    <div ref={ref} className="min-w-0">
      <div className="grid gap-1.5" style={{ gridTemplateColumns: `repeat(${steps.length / rows}, minmax(0, 1fr))` }} role="group" aria-label={onPick ? 'Which spoon is yours?' : 'The spoons'}>
        {steps.map((step) => {
          const aim = wanted === step.index
          const here = now !== null && Math.floor(now.best) === step.index
          const face = (
            <>
              <Spoon step={step.index} size={Math.min(96, each - 20)} />
              <span className={`block text-lg leading-tight font-bold ${aim ? 'text-done' : ''}`}>{step.everyday}</span>
              <span className="block text-sm leading-tight text-quiet">{step.trade}</span>
              <span className="min-h-5 text-sm leading-tight font-semibold">
                {aim && <span className="text-done">wanted</span>}
                {aim && here && ', '}
                {here && 'now, likely'}
              </span>
            </>
          )
          const look = `flex flex-col items-center gap-0.5 rounded-xl border-2 bg-panel px-1 pt-2 pb-1 text-center ${aim ? 'border-[3px] border-done' : here ? 'border-quiet border-dashed' : 'border-line'}`
          return onPick ? (
            <button key={step.index} type="button" disabled={busy} className={`${look} hover:border-ink`} title={step.does} onClick={() => onPick(step.index)}>
              {face}
            </button>
          ) : (
            <div key={step.index} className={look} title={step.does}>
              {face}
            </div>
          )
        })}
      </div>
      {track && (
        <svg width={width} height={26} aria-hidden="true" className="block">
          <line x1={now.low * each} x2={now.high * each} y1={12} y2={12} stroke="var(--ink)" strokeWidth="3" strokeDasharray="1 6" strokeLinecap="round" />
          <path d={`M${Math.min(Math.max(now.best * each, 9), width - 9)},3l8,14h-16z`} fill="var(--ink)" />
        </svg>
      )}
    </div>
  )
}
