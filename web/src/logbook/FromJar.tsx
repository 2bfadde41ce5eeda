import { useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useLocation } from 'wouter'
import { useStart } from '../api/batches'
import { EVENTS_VERSION } from '../api/client'
import { newId } from '../api/id'
import { keys } from '../api/keys'
import { useKitchen } from '../api/kitchens'
import type { Jar } from '../api/shelf'
import { Rest } from '../shared/Rest'
import { useSay } from '../shared/units'
import { Button } from '../ui/Button'
import { Choice } from '../ui/Choice'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'

/** What is kept, as a batch of its own: in which pan, on which burner, and how much of it. */
export default function FromJar({ jar, onClose }: { jar: Jar; onClose: () => void }) {
  const say = useSay()
  const queries = useQueryClient()
  const kitchen = useKitchen()
  const start = useStart()
  const [, go] = useLocation()
  const [ids] = useState(() => ({ id: newId(), event_id: newId() }))
  const [amount, setAmount] = useState(say(jar.volume))
  const [panId, setPan] = useState<string>()
  const [burnerId, setBurner] = useState<string>()
  const { pans = [], burners = [] } = kitchen.data ?? {}
  const pan = panId ?? pans[0]?.id
  const burner = burnerId ?? burners[0]?.id
  // All of it is as much as is there, and not as much as is shown of it.
  const value = amount.trim() === say(jar.volume) ? jar.volume.value : amount
  return (
    <Sheet open onClose={onClose} title={`Start with ${jar.name}`} description="With the salt, the body and the date that it has. Warm it with its meat from Serve, or boil it down.">
      <form
        className="grid gap-4"
        onSubmit={(event) => {
          event.preventDefault()
          if (!pan || !burner) return
          start.mutate(
            {
              ...ids,
              at: new Date().toISOString(),
              version: EVENTS_VERSION,
              name: jar.name,
              start: {
                kind: 'started',
                pan_id: pan,
                burner_id: burner,
                liquid: { kept: { batch: jar.batch, jar: jar.id }, measured: { method: 'jug', value, hot: false }, salt: { by: 'meter', percent: jar.salt_percent }, solids_g: 0, character: 'gelatin_rich' },
              },
            },
            {
              onSuccess: (batch) => {
                void queries.invalidateQueries({ queryKey: keys.shelf })
                go(`/batches/${batch.id}`)
              },
            },
          )
        }}
      >
        <TextField label="How much of it" value={amount} onChange={setAmount} error={start.error?.at('value', 'volume_ml', 'measured')} autoComplete="off" />
        <Choice label="In which pan" layout="pairs" value={pan} onChange={setPan} options={pans.map(({ id, name, capacity }) => ({ value: id, label: name, hint: `holds ${say(capacity)}` }))} />
        <Choice label="On which burner" value={burner} onChange={setBurner} options={burners.map(({ id, name }) => ({ value: id, label: name }))} />
        <Rest problem={start.error} beside={['value', 'volume_ml', 'measured']} />
        <Button type="submit" look="main" disabled={start.isPending || !pan || !burner || !amount.trim()}>
          Start with it
        </Button>
      </form>
    </Sheet>
  )
}
