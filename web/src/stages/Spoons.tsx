import { SpoonPair } from '../figures/SpoonPair'
import { SpoonRow } from '../figures/SpoonRow'
import { useBench } from './useBench'

/** The spoons of the ladder: tapping the one that looks like the cook's is the verdict. */
export function Spoons() {
  const { batch, busy, onRecord } = useBench()
  const { low, position, high } = batch.pot.body
  return (
    <section aria-label="The spoon" className="grid gap-2">
      {!batch.finished && <h2 className="text-lg">Draw a finger across the back of the spoon. Which one is yours?</h2>}
      <SpoonRow
        steps={batch.ladder}
        now={{ low, best: position, high }}
        wanted={batch.wanted?.body ?? null}
        busy={busy}
        onPick={batch.finished ? undefined : (step) => onRecord({ kind: 'tested', of: 'body', step, twice: false })}
      />
    </section>
  )
}

/** The spoon that is likely beside the one that is wanted. */
export function LikelySpoon() {
  const { batch } = useBench()
  const { low, position, high } = batch.pot.body
  return <SpoonPair steps={batch.ladder} now={{ low, best: position, high }} wanted={batch.wanted?.body ?? null} />
}
