import { useState } from 'react'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

/** Meat or vegetables that stand in the liquid. */
export default function SolidsSheet({ onClose }: { onClose: () => void }) {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const [mass, setMass] = useState('')
  return (
    <Sheet open onClose={onClose} title="Meat or vegetables in the pan" description="They take up room and weight, and trade salt with the liquid. Half then means half of the liquid.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          onRecord({ kind: 'solids', mass_g: mass }, onClose)
        }}
      >
        <TextField label={batch.pot.solids ? `In the pan now, instead of ${say(batch.pot.solids)}` : 'Their weight'} placeholder={eg('1.1 kg', '2 1/2 lb')} value={mass} onChange={setMass} error={problem?.at('mass_g')} autoFocus autoComplete="off" />
        <Button type="submit" look="main" disabled={!mass.trim()}>
          They are in the pan
        </Button>
        {batch.pot.solids && <Button onClick={() => onRecord({ kind: 'solids', mass_g: 0 }, onClose)}>All lifted out</Button>}
      </form>
    </Sheet>
  )
}
