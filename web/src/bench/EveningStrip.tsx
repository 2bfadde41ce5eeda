import type { Batch } from '../api/types'
import { Evening } from '../figures/Evening'
import { clock } from '../shared/clock'

type Ready = NonNullable<Batch['ready']>

/** Never colour alone: the sentence beside it says the same. */
const INKS = { early: 'var(--done)', in_time: 'var(--done)', perhaps: 'var(--fat-ink)', late: 'var(--heat)' }

/** A strip of the evening, from now to the table. */
export function EveningStrip({ ready, now }: { ready: Ready; now: number }) {
  if (ready.by === null || ready.stands === null) return null
  return (
    <Evening
      now={now}
      low={Date.parse(ready.low)}
      high={Date.parse(ready.high)}
      by={Date.parse(ready.by)}
      starts={ready.sides.map(({ key, label, at }) => ({ key, label, at: Date.parse(at) }))}
      clock={clock}
      ink={INKS[ready.stands]}
    />
  )
}
