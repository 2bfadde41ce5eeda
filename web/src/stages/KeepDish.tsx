import { useState } from 'react'
import { useLocation } from 'wouter'
import { useHouseDishes, useKeepDish } from '../api/houseDishes'
import { newId } from '../api/id'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

/** A finished batch is kept to be cooked again: as a dish of its own, or as a later version of one. */
export default function KeepDish({ onClose }: { onClose: () => void }) {
  const { batch } = useBench()
  const dishes = useHouseDishes()
  const keep = useKeepDish()
  const [, go] = useLocation()
  const [fresh] = useState(newId)
  const known = dishes.data?.find((dish) => dish.id === batch.house_dish || (!dish.retired && dish.name === batch.name))
  const [of, setOf] = useState<'known' | 'new'>()
  const [name, setName] = useState(batch.name)
  const [people, setPeople] = useState(batch.wanted?.by_people ? String(batch.wanted.people) : batch.wanted?.portions ? String(batch.wanted.portions) : '')
  const later = known !== undefined && (of ?? 'known') === 'known'
  return (
    <Sheet open onClose={onClose} title="Keep it as a house dish" description="What went in, the way, and what is wished of it are kept; it can be started again for other numbers and in other pans.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          const id = later ? known.id : fresh
          // What is no number is told by the server, beside the field.
          keep.mutate({ id, batch_id: batch.id, name: later ? known.name : name, people: people as unknown as number }, { onSuccess: () => go(`/house-dishes/${id}`) })
        }}
      >
        {known && (
          <Choice
            label="Keep it as"
            layout="stack"
            value={of ?? 'known'}
            onChange={setOf}
            options={[
              { value: 'known', label: `${known.name}, version ${known.number + 1}` },
              { value: 'new', label: 'A dish of its own' },
            ]}
          />
        )}
        {!later && <TextField label="Name" value={name} onChange={setName} error={keep.error?.at('name')} autoComplete="off" />}
        <TextField label="For how many was it?" inputMode="numeric" value={people} onChange={setPeople} error={keep.error?.at('people')} autoComplete="off" className="w-44" />
        {keep.error && !keep.error.at('people') && !keep.error.at('name') && (
          <p role="alert" className="font-medium text-heat">
            {keep.error.message}
          </p>
        )}
        <Button type="submit" look="main" disabled={keep.isPending || !people.trim()}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}
