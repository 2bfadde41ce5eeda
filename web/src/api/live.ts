import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useEffect, useState, useSyncExternalStore } from 'react'
import { answer, client, Problem } from './client'
import { keys } from './hooks'
import { onOutbox, settle, waiting, type Waiting } from './outbox'

/** News of the kitchen's batches as they happen; after a gap, everything in sight is asked for anew. */
export function useLive(): void {
  const queries = useQueryClient()
  useEffect(() => {
    const stream = new EventSource('/api/v1/stream')
    stream.addEventListener('batch', (event) => {
      const { id } = JSON.parse(event.data as string) as { id: string }
      void queries.invalidateQueries({ queryKey: keys.batch(id) })
      void queries.invalidateQueries({ queryKey: keys.batches })
    })
    stream.addEventListener('again', () => {
      void queries.invalidateQueries({ queryKey: ['batch'] })
      void queries.invalidateQueries({ queryKey: keys.batches })
    })
    return () => stream.close()
  }, [queries])
}

export interface Outbox {
  waiting: readonly Waiting[]
  /** What the server would not take when it was told at last. */
  refused: readonly { waiting: Waiting; why: string }[]
  dismiss: () => void
}

const AGAIN_MS = 2000

/** Sends what was kept while the server was away, in order and each once, as soon as it answers again. */
export function useOutbox(): Outbox {
  const queries = useQueryClient()
  const list = useSyncExternalStore(onOutbox, waiting)
  const [refused, setRefused] = useState<Outbox['refused']>([])
  const pending = list.length > 0
  useEffect(() => {
    if (!pending) return
    let busy = false
    const flush = async () => {
      if (busy) return
      busy = true
      try {
        for (const one of waiting()) {
          const why = await told(one, queries)
          if (why === 'away') break
          settle(one.id)
          if (why !== null) setRefused((before) => [...before, { waiting: one, why }])
        }
      } finally {
        busy = false
      }
    }
    void flush()
    const timer = setInterval(() => void flush(), AGAIN_MS)
    addEventListener('online', flush)
    return () => {
      clearInterval(timer)
      removeEventListener('online', flush)
    }
  }, [pending, queries])
  return { waiting: list, refused, dismiss: () => setRefused([]) }
}

/** Null where the server took it, 'away' where it does not answer, and its sentence where it refused. */
async function told({ batchId, id, at, payload }: Waiting, queries: QueryClient): Promise<string | null> {
  try {
    const path = { batch_id: batchId }
    const batch = await answer(client.POST('/api/v1/batches/{batch_id}/events', { params: { path }, body: { id, at, payload } }))
    queries.setQueryData(keys.batch(batchId), batch)
    return null
  } catch (problem) {
    if (problem instanceof Problem && (problem.status === 0 || problem.status >= 500)) return 'away'
    return problem instanceof Error ? problem.message : 'The server did not take it.'
  }
}
