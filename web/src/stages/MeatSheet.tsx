import { useState } from 'react'
import type { Payload } from '../api/types'
import { useForeseen } from '../api/finishing'
import { useLists } from '../api/lists'
import { Changes } from '../shared/Changes'
import { useExample } from '../shared/units'
import { useSettled } from '../shared/useSettled'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

type Cut = ReturnType<typeof useLists>['meats'][number]['key']

/** Meat that is warmed in the sauce: its weight, how it is cut, and whether it comes from the fridge. */
export default function MeatSheet({ onClose }: { onClose: () => void }) {
  const eg = useExample()
  const { batch, busy, onRecord, problem } = useBench()
  const { meats } = useLists()
  const [mass, setMass] = useState('')
  const [cut, setCut] = useState<Cut>()
  const [from, setFrom] = useState<'warm' | 'fridge'>()
  const ready = mass.trim() && cut && from ? ({ kind: 'meat_in', mass_g: mass, cut, cold: from === 'fridge' } as Payload) : null
  const settled = useSettled(ready, 250, JSON.stringify(ready))
  const foreseen = useForeseen(batch.id, batch.last_seq, settled)
  return (
    <Sheet open onClose={onClose} title="Meat into the sauce" description="It is warmed in it, and gives its juice.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (ready) onRecord(ready, onClose)
        }}
      >
        <Choice label="How is it cut?" value={cut} onChange={setCut} options={meats.map(({ key, label }) => ({ value: key, label }))} />
        <Choice
          label="Where does it come from?"
          value={from}
          onChange={setFrom}
          options={[
            { value: 'warm', label: 'Kept warm' },
            { value: 'fridge', label: 'The fridge' },
          ]}
        />
        <TextField label="Its weight" placeholder={eg('800 g', '1 3/4 lb')} value={mass} onChange={setMass} error={problem?.at('mass_g')} autoComplete="off" />
        {from === 'fridge' && <p className="text-quiet">Warm it in the sauce before butter, yolk or cream goes in.</p>}
        {settled && foreseen.data && !foreseen.isError && (
          <div role="status">
            <Changes changes={foreseen.data.changes} />
          </div>
        )}
        <Button type="submit" look="main" disabled={!ready || busy}>
          It is in
        </Button>
      </form>
    </Sheet>
  )
}
