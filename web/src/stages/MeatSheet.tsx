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

type How = 'warm' | 'fridge' | 'glaze' | 'crisped' | 'oven'
type Cut = ReturnType<typeof useLists>['meats'][number]['key']

/** Meat and sauce together: coated, warmed through, or glazed; what it changes is told before. */
export default function MeatSheet({ onClose }: { onClose: () => void }) {
  const eg = useExample()
  const { batch, busy, onRecord, problem } = useBench()
  const { meats } = useLists()
  const [mass, setMass] = useState('')
  const [cut, setCut] = useState<Cut>()
  const [pieces, setPieces] = useState('')
  const [how, setHow] = useState<How>()
  const [oven, setOven] = useState('')
  const weighed = how === undefined || how === 'warm' || how === 'fridge'
  const ready = payload()
  const settled = useSettled(ready, 250, JSON.stringify(ready))
  const foreseen = useForeseen(batch.id, batch.last_seq, settled)
  function payload(): Payload | null {
    if (how === 'crisped' || how === 'oven') return { kind: 'ovened', how, ...(oven.trim() && { oven_c: oven }) } as Payload
    if (how === 'glaze') return pieces.trim() ? ({ kind: 'glazed', pieces: pieces as unknown as number } satisfies Payload) : null
    return mass.trim() && cut && how ? ({ kind: 'meat_in', mass_g: mass, cut, cold: how === 'fridge' } as Payload) : null
  }
  return (
    <Sheet open onClose={onClose} title="Meat and sauce" description="Meat warmed in it gives its juice; vegetables drink.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (ready) onRecord(ready, onClose)
        }}
      >
        <Choice
          label="What is to be done with it?"
          layout="stack"
          value={how}
          onChange={setHow}
          options={[
            { value: 'warm', label: 'Coat it in the sauce', hint: 'It was kept warm.' },
            { value: 'fridge', label: 'Warm it through in the sauce', hint: 'It comes from the fridge.' },
            { value: 'glaze', label: 'Glaze it in a hot oven', hint: 'A ladle on each piece, basted twice.' },
            { value: 'crisped', label: 'Crisp it apart', hint: 'The sauce goes under it.' },
            { value: 'oven', label: 'Finish it in the oven under the sauce', hint: 'Uncovered in its pan: it boils down a little more.' },
          ]}
        />
        {weighed && <Choice label="What is it?" value={cut} onChange={setCut} options={meats.map(({ key, label }) => ({ value: key, label }))} />}
        {how === 'glaze' && <TextField label="How many pieces" inputMode="numeric" value={pieces} onChange={setPieces} error={problem?.at('pieces')} autoComplete="off" />}
        {weighed && <TextField label="Its weight" placeholder={eg('800 g', '1 3/4 lb')} value={mass} onChange={setMass} error={problem?.at('mass_g')} autoComplete="off" />}
        {(how === 'crisped' || how === 'oven') && <TextField label="The oven, if you like" placeholder={eg('200 °C', '390 °F')} value={oven} onChange={setOven} error={problem?.at('oven_c')} autoComplete="off" />}
        {how === 'fridge' && <p className="text-quiet">Warm it in the sauce before butter, yolk or cream goes in.</p>}
        {settled && foreseen.data && !foreseen.isError && (
          <div role="status">
            <Changes changes={foreseen.data.changes} />
          </div>
        )}
        <Button type="submit" look="main" disabled={!ready || busy}>
          {weighed ? 'It is in' : how === 'glaze' ? 'They are in the oven' : 'It is in the oven'}
        </Button>
      </form>
    </Sheet>
  )
}
