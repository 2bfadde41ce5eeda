import { Suspense, useState } from 'react'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Figure, reasonOf } from '../shared/Figure'
import { Salt } from './Salt'
import { LikelySpoon } from './Spoons'
import { useBench } from './useBench'
import { part } from '../ui/part'

export { LikelySpoon as Beneath }

// Nobody needs it before the rest is read.
const Finishes = part(() => import('./Finishes'))

/** Salt last: what is in it, what is missing, and room to taste. */
export default function SeasonPanel() {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const [grams, setGrams] = useState('')
  const { pot, plan, act } = batch
  // What the bar asks for now is the figure; else what it comes to in the end.
  const now = act.kind === 'salt' ? act.goes_in : null
  return (
    <div className="flex flex-wrap gap-x-8 gap-y-5">
      <div className="max-sm:order-last">
        <Salt height={300} />
      </div>
      <div className="grid min-w-72 flex-1 content-start gap-5">
        <div className="grid grid-cols-2 gap-x-6 gap-y-3">
          <Figure
            label="salt now"
            tone="text-salt"
            value={`${pot.salt.best.toFixed(2)} %`}
            note={`likely ${pot.salt.low.toFixed(2)} to ${pot.salt.high.toFixed(2)} %`}
            reason={reasonOf(pot.reasons, 'salt')}
          />
          {plan && (
            <Figure
              label={now ? 'table salt to add now' : 'table salt, in the end'}
              value={now ? say(now) : plan.salt_to_add ? say(plan.salt_to_add) : 'none'}
              note={now ? `${act.goes_in_also ? say(act.goes_in_also) : ''}; then taste` : plan.salt_to_add_also ? say(plan.salt_to_add_also) : ''}
              reason={reasonOf(plan.reasons, 'salt_to_add')}
            />
          )}
          {plan && <Figure label="at the end" tone="text-salt" value={`${plan.salt_after.best.toFixed(2)} %`} note="by the plan" />}
        </div>
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            onRecord({ kind: 'salted', salt_g: grams, salt: 'table' }, () => setGrams(''))
          }}
        >
          <TextField label="Another amount of salt" placeholder={eg('1.5 g', '1/4 tsp')} value={grams} onChange={setGrams} error={problem?.at('salt_g')} className="w-56" />
          <Button type="submit" disabled={!grams.trim()}>
            Stirred in
          </Button>
        </form>
        {!batch.finished && (
          <Suspense>
            <Finishes />
          </Suspense>
        )}
        <p className="text-quiet">Taste after thickening: starch dulls salt. A potato takes no salt out; only unsalted liquid does.</p>
      </div>
    </div>
  )
}
