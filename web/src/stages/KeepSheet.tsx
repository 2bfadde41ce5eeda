import { useState } from 'react'
import { newId } from '../api/id'
import type { Jar } from '../api/shelf'
import type { Payload } from '../api/types'
import { useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { useBench } from './useBench'

const WHAT: Record<Jar['what'], string> = { rest: 'What stands aside', sauce: 'The sauce', fat: 'The fat' }

/** Something of the batch goes into the fridge or the freezer, under a name of its own. */
export default function KeepSheet({ onClose }: { onClose: () => void }) {
  const say = useSay()
  const { batch, busy, onRecord, problem } = useBench()
  const [what, setWhat] = useState(batch.keepable[0]?.what)
  const [place, setPlace] = useState<Jar['place']>()
  const [name, setName] = useState('')
  const [volume, setVolume] = useState('')
  const [containers, setContainers] = useState('')
  const [jar] = useState(newId)
  const there = batch.keepable.find(({ what: one }) => one === what)
  const record = () => {
    const more = { ...(name.trim() && { name }), ...(volume.trim() && { volume_ml: volume }), containers: containers.trim() ? (containers as unknown as number) : 1 }
    onRecord({ kind: 'put_by', jar, what, place, ...more } as Payload, onClose)
  }
  return (
    <Sheet open onClose={onClose} title="Keep it" description="Named and dated, it can go into another batch.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          record()
        }}
      >
        {batch.keepable.length > 1 && <Choice label="What" value={what} onChange={setWhat} options={batch.keepable.map((one) => ({ value: one.what, label: WHAT[one.what] }))} />}
        <Choice
          label="Where"
          value={place}
          onChange={setPlace}
          options={[
            { value: 'fridge', label: 'In the fridge' },
            { value: 'freezer', label: 'In the freezer' },
          ]}
        />
        <TextField label="Its name" value={name} onChange={setName} error={problem?.at('name')} maxLength={60} autoComplete="off" />
        <TextField label="How much of it, or all" placeholder={there ? say(there.volume) : ''} value={volume} onChange={setVolume} error={problem?.at('volume_ml')} autoComplete="off" />
        <TextField label="In how many containers" inputMode="numeric" hint="One, if nothing is said." value={containers} onChange={setContainers} error={problem?.at('containers')} autoComplete="off" />
        {problem?.at('place', 'what') && (
          <p role="alert" className="font-medium text-heat">
            {problem.at('place', 'what')}
          </p>
        )}
        <Button type="submit" look="main" disabled={!what || !place || busy}>
          Keep it
        </Button>
      </form>
    </Sheet>
  )
}
