import { useState } from 'react'
import { useThickeners } from '../api/mixtures'
import { useExample, useSay } from '../shared/units'
import { Making } from './Making'
import { LikelySpoon, Spoons } from './Spoons'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Figure, reasonOf } from '../shared/Figure'
import { useBench } from './useBench'

export { LikelySpoon as Beneath }

/** How much to whisk in, and where on the ladder the sauce stands. */
export default function ThickenPanel() {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const [grams, setGrams] = useState('')
  const { plan, pot, act } = batch
  const thickeners = useThickeners()
  // What the bar asks for now is the figure; how much it may come to stands beneath.
  const now = act.thickener ? act.goes_in : null
  const key = act.thickener ?? plan?.school
  const school = key ? { key, dry: thickeners.find((one) => one.key === key)?.dry ?? plan?.dry_name } : thickeners[0]
  // What stands ready is poured in whatever it is stirred into.
  const stirredInto = batch.making?.ready && batch.making.school === school?.key ? batch.making.stirred_into : null
  const into = stirredInto ? { stirred_into: stirredInto } : {}
  return (
    <div className="grid gap-5">
      {plan?.thickener && plan.dry && plan.dry_low && plan.dry_high ? (
        <div className="grid gap-x-6 gap-y-3 grid-cols-2 sm:grid-cols-3">
          <Figure
            label={`${plan.dry_name ?? ''} ${now ? 'to add now' : 'still to come'}`}
            value={say(now ?? plan.dry)}
            note={
              now
                ? `${act.goes_in_also ? say(act.goes_in_also) : ''}; likely ${say(plan.dry_low)} to ${say(plan.dry_high)} in all`
                : `${plan.dry_also ? say(plan.dry_also) : ''}; likely ${say(plan.dry_low)} to ${say(plan.dry_high)}`
            }
            reason={reasonOf(plan.reasons, 'thickener')}
          />
          {plan.carrier && !now && (
            <Figure label={plan.carrier_name ?? ''} value={say(plan.carrier)} note={`${plan.carrier_also ? say(plan.carrier_also) : ''}, for a ${plan.thickener}`} />
          )}
          <Figure label="makes" value={say(plan.volume)} note={plan.body.everyday} reason={reasonOf(plan.reasons, 'body')} />
        </div>
      ) : (
        <Figure
          label="body"
          value={pot.body.everyday}
          note={plan ? 'The sums say: no more thickener. Trust the spoon over them.' : 'Plan first: say what you want.'}
          reason={reasonOf(pot.reasons, 'body')}
        />
      )}
      {/* Until it stands ready there is nothing to look at on a spoon. */}
      {batch.making?.ready === false && <Making card={batch.making} />}
      <Spoons />
      {batch.making?.ready && <Making card={batch.making} />}
      {plan && plan.allergens.length > 0 && (
        <p>
          <span className="font-semibold">Brings:</span> {plan.allergens.join(', ')}.
        </p>
      )}
      <form
        className="flex flex-wrap items-end gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          if (school) onRecord({ kind: 'thickened', thickener: school.key, dry_g: grams, ...into }, () => setGrams(''))
        }}
      >
        <TextField
          label={`Another amount of ${school?.dry ?? 'thickener'}`}
          placeholder={eg('12 g', '1 1/2 tbsp')}
          value={grams}
          onChange={setGrams}
          error={problem?.at('dry_g')}
          className="w-64"
        />
        <Button type="submit" disabled={!grams.trim()}>
          Whisked in
        </Button>
      </form>
      <p className="text-quiet">
        Judge it off the boil, on a warm plate: a cold plate sets it, and it seems thicker.
      </p>
    </div>
  )
}
