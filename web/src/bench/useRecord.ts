import type { useAppend } from '../api/batches'
import type { Batch, Payload } from '../api/types'

/** Records what happened, in order, and then does what comes after it; and takes the last of it back. */
export function useRecord(batch: Batch, append: ReturnType<typeof useAppend>) {
  const last = batch.log.filter((entry) => entry.undoable).at(-1)
  const undo = () => last && append.mutate({ kind: 'struck', event: last.id })
  const record = async (payload: Payload | Payload[], after?: () => void) => {
    try {
      for (const one of [payload].flat()) await append.mutateAsync(one)
    } catch {
      return // What went wrong stands beside its field.
    }
    after?.()
  }
  return { record, last, undo }
}
