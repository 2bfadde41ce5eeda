import { Suspense, useState } from 'react'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Figure, reasonOf } from '../shared/Figure'
import { Tastes } from './Tastes'
import { useBench } from './useBench'
import { part } from '../ui/part'

// Nobody needs it before the rest is read.
const Finishes = part(() => import('./Finishes'))

/** The sauce goes through a sieve once more. */
function Sieve() {
  const { busy, onRecord } = useBench()
  return (
    <section aria-label="Sieve it again" className="flex flex-wrap items-center gap-x-3 gap-y-2">
      <p className="basis-full text-base text-quiet">Sieve it again? A finer mesh takes half of its pulp, and the body that came of it.</p>
      <Button disabled={busy} onClick={() => onRecord({ kind: 'sieved', mesh: 'same' })}>
        The same mesh
      </Button>
      <Button disabled={busy} onClick={() => onRecord({ kind: 'sieved', mesh: 'finer' })}>
        A finer mesh
      </Button>
    </section>
  )
}

/** The tastes of the sauce, salt first: what is in it, what is missing, and room to taste. */
export default function SeasonPanel() {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const [grams, setGrams] = useState('')
  const { plan, act } = batch
  // What the bar asks for now is the figure; else what it comes to in the end.
  const now = act.kind === 'salt' ? act.goes_in : null
  return (
    <div className="grid gap-5">
      <Tastes />
      <div className="grid content-start gap-x-10 gap-y-5 lg:grid-cols-[22rem_minmax(0,1fr)]">
        <div className="grid content-start gap-4">
          {plan && (
            <Figure
              label={now ? 'table salt to add now' : 'table salt, in the end'}
              value={now ? say(now) : plan.salt_to_add ? say(plan.salt_to_add) : 'none'}
              note={now ? `${act.goes_in_also ? say(act.goes_in_also) : ''}; then taste` : plan.salt_to_add_also ? say(plan.salt_to_add_also) : ''}
              reason={reasonOf(plan.reasons, 'salt_to_add')}
            />
          )}
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
        <p className="text-quiet">Taste after thickening: starch dulls salt. A potato takes no salt out; only unsalted liquid does.</p>
        </div>
        {!batch.finished && (
          <div className="grid content-start gap-5">
            <Suspense>
              <Finishes />
            </Suspense>
            <Sieve />
          </div>
        )}
      </div>
    </div>
  )
}
