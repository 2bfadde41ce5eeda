import { useState } from 'react'
import { useAppend } from '../api/batches'
import { useKitchen } from '../api/kitchens'
import type { ToldBatch } from '../api/types'
import { Header } from '../shared/Header'
import { Words } from '../shared/units'
import { Button } from '../ui/Button'
import { fresh, startOf } from '../intake/draft'
import { StartForm } from '../intake/StartForm'
import { LogList } from './LogSheet'

/** A batch whose pot cannot be drawn: its log, why, and a start said anew. */
export default function Unreadable({ batch }: { batch: ToldBatch }) {
  const append = useAppend(batch.id)
  const kitchen = useKitchen()
  const [starting, setStarting] = useState(false)
  if (starting && kitchen.data) {
    const { pans, burners } = kitchen.data
    return (
      <StartForm
        title={`${batch.name}: say the start anew`}
        kitchen={kitchen.data}
        initial={{ ...fresh, name: batch.name, panId: pans[0]?.id ?? '', burnerId: burners[0]?.id ?? '' }}
        problem={append.error}
        busy={append.isPending}
        act="This is what I have"
        onDone={(draft) => {
          const payload = startOf(draft)
          if (payload) append.mutate(payload)
        }}
      />
    )
  }
  return (
    <>
      <Header title={batch.name} />
      <main className="mx-auto max-w-3xl px-4 pb-16 md:px-7">
        <h1 className="mt-6 mb-2 text-2xl">The pot of this batch cannot be worked out</h1>
        {batch.missing.map(({ part, why }) => (
          <p key={part} className="text-quiet">
            <Words of={why} />
          </p>
        ))}
        <p className="my-4 text-lg">Nothing is lost. Take back what cannot be read, or say again what is in the pot.</p>
        <Button look="main" onClick={() => setStarting(true)}>
          Say what is in the pot
        </Button>
        <h2 className="mt-8 mb-2 text-xl">Log</h2>
        <LogList batch={batch} append={append} />
      </main>
    </>
  )
}
