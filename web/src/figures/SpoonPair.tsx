import { Spoon } from './Spoon'
import type { SpoonStep } from './SpoonRow'

interface Props {
  steps: readonly SpoonStep[]
  now: { low: number; best: number; high: number }
  wanted: number | null
}

/** The spoon that is likely, with its range, beside the one that is wanted. */
export function SpoonPair({ steps, now, wanted }: Props) {
  const step = (at: number) => steps[Math.min(Math.max(Math.floor(at), 0), steps.length - 1)]
  const [low, here, high] = [step(now.low), step(now.best), step(now.high)]
  const aim = wanted === null ? undefined : steps[wanted]
  if (!here) return null
  return (
    <div className="grid grid-cols-[repeat(auto-fit,minmax(11rem,1fr))] gap-x-2 gap-y-2">
      <div className="flex items-center gap-2">
        <Spoon step={here.index} size={88} />
        <p>
          <span className="block text-quiet">now, likely</span>
          <span className="block text-2xl leading-tight font-bold">{here.everyday}</span>
          <span className="block text-quiet">{low && high && low !== high ? `${low.everyday} to ${high.everyday}` : (here.trade ?? here.does)}</span>
        </p>
      </div>
      {aim && (
        <div className="flex items-center gap-2">
          <Spoon step={aim.index} size={88} />
          <p>
            <span className="block text-quiet">wanted</span>
            <span className="block text-2xl leading-tight font-bold text-done">{aim.everyday}</span>
            <span className="block text-quiet">{aim.trade ?? aim.does}</span>
          </p>
        </div>
      )}
    </div>
  )
}
