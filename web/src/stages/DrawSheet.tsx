import { useState } from 'react'
import { useKitchen } from '../api/kitchens'
import { useLists } from '../api/lists'
import type { Schemas } from '../api/client'
import { useExample, useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

type Draw = Schemas['DrawOut']['key']

const PURPOSES = {
  sauce: { label: 'The sauce', says: 'This becomes the sauce, in its own pan. The rest keeps the meat moist.', people: 'For how many is it' },
  plate: { label: 'A plate now', says: 'Too little to measure: a minute or two in a hot pan, until a spoon leaves a trail.', people: 'For how many is the rest' },
  aside: { label: 'Set aside', says: 'Keep it hot, or cool it soon. The rest goes on.', people: 'For how many is the rest' },
} as const

type Purpose = keyof typeof PURPOSES

/** A part leaves the pot: what for, how much, how, and for how many what goes on is. */
export default function DrawSheet({ onClose }: { onClose: () => void }) {
  const eg = useExample()
  const { batch, onRecord, problem } = useBench()
  const say = useSay()
  const { draws } = useLists()
  const kitchen = useKitchen()
  const [purpose, setPurpose] = useState<Purpose>()
  const [volume, setVolume] = useState('')
  const [how, setHow] = useState<Draw>()
  const [people, setPeople] = useState('')
  const [panId, setPan] = useState<string>()
  const [burnerId, setBurner] = useState(kitchen.data?.burners.find((b) => b.name === batch.burner)?.id)
  const pans = kitchen.data?.pans ?? []
  const what = purpose && PURPOSES[purpose]
  const placed = purpose === 'plate' || purpose === 'aside' || (purpose === 'sauce' && panId !== undefined && burnerId !== undefined)
  const count = people.trim()
  const counted = count === '' || (Number.isInteger(Number(count)) && Number(count) >= 1)
  const record = () => {
    const part = { volume_ml: volume, ...(how && { how }), ...(count && { people: Number(count) }) }
    if (purpose === 'plate' || purpose === 'aside') onRecord({ kind: 'parted', purpose, ...part }, onClose)
    else if (panId && burnerId) onRecord({ kind: 'drawn', pan_id: panId, burner_id: burnerId, ...part }, onClose)
  }
  return (
    <Sheet open onClose={onClose} title="Draw off a part" description={what?.says ?? `Of the ${say(batch.pot.liquid)} in the pot.`}>
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          record()
        }}
      >
        <Choice label="What is it for" value={purpose} onChange={setPurpose} options={Object.entries(PURPOSES).map(([key, { label }]) => ({ value: key as Purpose, label }))} />
        <TextField label="How much, as the jug shows it" placeholder={eg('400 ml', '1 3/4 cups')} value={volume} onChange={setVolume} error={problem?.at('volume_ml')} autoComplete="off" />
        {batch.pot.fat.value > 0 && (
          <Choice
            label="Drawn"
            layout="stack"
            value={how}
            onChange={setHow}
            options={draws.map(({ key, label }) => ({ value: key, label }))}
          />
        )}
        {what && batch.wanted && (
          <TextField
            label={what.people}
            hint={batch.wanted.by_people ? `It was to be for ${batch.wanted.people} people.` : 'Left empty, you want as much as before.'}
            inputMode="numeric"
            value={people}
            onChange={setPeople}
            error={counted ? problem?.at('people') : 'A number of people, please.'}
            autoComplete="off"
          />
        )}
        {purpose === 'sauce' && (
          <>
            <Choice label="Into which pan" value={panId} onChange={setPan} options={pans.map((pan) => ({ value: pan.id, label: pan.name }))} />
            <Choice
              label="On which burner"
              value={burnerId}
              onChange={setBurner}
              options={(kitchen.data?.burners ?? []).map((burner) => ({ value: burner.id, label: burner.name }))}
            />
          </>
        )}
        <Button type="submit" look="main" disabled={!volume.trim() || !placed || !counted || (batch.pot.fat.value > 0 && !how)}>
          Drawn off
        </Button>
      </form>
    </Sheet>
  )
}
