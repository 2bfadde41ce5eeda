import { useAppend } from '../api/batches'
import { useKitchen } from '../api/kitchens'
import type { Batch } from '../api/types'
import { draftOf, startOf } from '../intake/draft'
import { StartForm } from '../intake/StartForm'
import { Header } from '../shared/Header'

/** The start, said again where it was wrong. */
export default function Correct({ batch, onClose }: { batch: Batch; onClose: () => void }) {
  const kitchen = useKitchen()
  const append = useAppend(batch.id)
  if (!kitchen.data) return <Header title={batch.name} />
  return (
    <StartForm
      title={`${batch.name}: correct the start`}
      kitchen={kitchen.data}
      initial={draftOf(batch, kitchen.data)}
      problem={append.error}
      busy={append.isPending}
      act="Correct it"
      onDone={(draft) => {
        const payload = startOf(draft)
        if (payload) append.mutate(payload, { onSuccess: onClose })
      }}
    />
  )
}
