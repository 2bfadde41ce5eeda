import { useQueryClient, type InfiniteData, type Query, type QueryClient } from '@tanstack/react-query'
import { useCallback, useEffect, useState, useSyncExternalStore } from 'react'
import { answer, client, Problem, type Schemas } from './client'
import { keys } from './keys'
import type { ToldBatch } from './types'
import { queries } from './kept'
import { adoptOld, AGAIN_MS, onOutbox, Sender, waiting, type Outcome, type Owner, type Waiting } from './outbox'

let stream: EventSource | null = null

/**
 * Open the stream of news, before anything is asked for: whatever is answered from then on, it tells what happens
 * after. Refused to whoever was not signed in any more, it is opened anew for whoever is now.
 */
export function listen(): void {
  if (stream && stream.readyState !== EventSource.CLOSED) return
  const since = Date.now()
  let begun = false
  stream = new EventSource('/api/v1/stream')
  stream.addEventListener('batch', (event) => {
    const { id, live } = JSON.parse(event.data as string) as News
    if (live && put(queries, id, live)) return
    void queries.invalidateQueries({ queryKey: keys.batch(id) })
    void queries.invalidateQueries({ queryKey: keys.batches })
  })
  stream.addEventListener('again', () => {
    // What was asked for since the stream was opened is new enough, and so is what is being asked for; after a gap
    // nothing is.
    const old = ({ state }: Query) => begun || (state.dataUpdatedAt < since && state.fetchStatus !== 'fetching')
    void queries.invalidateQueries({ queryKey: ['batch'], predicate: old })
    void queries.invalidateQueries({ queryKey: keys.batches, predicate: old })
    // Who was removed, or works elsewhere by now, finds out by the same gap.
    if (begun) void queries.invalidateQueries({ queryKey: keys.session })
    begun = true
  })
}

/** News of the kitchen's batches as they happen; after a gap, everything in sight is asked for anew. */
export function useLive(): void {
  useEffect(() => {
    listen()
    return () => {
      stream?.close()
      stream = null
    }
  }, [])
}

interface News {
  id: string
  /** What a device changed, so that nothing need be asked for. */
  live?: { batch: Pick<ToldBatch, 'last_seq'> & Partial<ToldBatch>; line: Schemas['BatchLine'] }
}

/** Put what is new in the place of what is known; false where something else happened between, and is to be asked for. */
function put(queries: QueryClient, id: string, { batch, line }: NonNullable<News['live']>): boolean {
  const known = queries.getQueryData<ToldBatch>(keys.batch(id))
  if (known && known.last_seq !== batch.last_seq) return false
  if (known) queries.setQueryData<ToldBatch>(keys.batch(id), { ...known, ...batch })
  queries.setQueryData<InfiniteData<Schemas['BatchPage']>>(keys.batches, (list) =>
    list && { ...list, pages: list.pages.map((page) => ({ ...page, items: page.items.map((one) => (one.id === id ? line : one)) })) },
  )
  return true
}

/** Sends what was kept in this browser, in order and each once, as soon as the server takes it. */
export function useOutbox(owner: Owner | null): { waiting: readonly Waiting[]; hurry: () => void } {
  const queries = useQueryClient()
  const list = useSyncExternalStore(onOutbox, waiting)
  const [sender] = useState(() => new Sender((one) => told(one, queries)))
  const { person, kitchen, name } = owner ?? { person: '', kitchen: '', name: '' }
  const pending = list.some((one) => one.state === 'waits')
  const flush = useCallback(() => {
    sender.hurry()
    void sender.flush({ person, kitchen })
  }, [sender, person, kitchen])
  useEffect(() => {
    if (person) adoptOld({ person, kitchen, name })
  }, [person, kitchen, name])
  useEffect(() => {
    if (!pending || !person) return
    flush()
    const timer = setInterval(() => void sender.flush({ person, kitchen }), AGAIN_MS / 2)
    addEventListener('online', flush)
    return () => {
      clearInterval(timer)
      removeEventListener('online', flush)
    }
  }, [pending, person, kitchen, sender, flush])
  return { waiting: list, hurry: flush }
}

/** Null where the server took it; otherwise what it answered. */
async function told({ batchId, id, at, version = 1, payload }: Waiting, queries: QueryClient): Promise<Outcome | null> {
  try {
    const path = { batch_id: batchId }
    const batch = await answer(client.POST('/api/v1/batches/{batch_id}/events', { params: { path }, body: { id, at, version, payload } }))
    queries.setQueryData(keys.batch(batchId), batch)
    void queries.invalidateQueries({ queryKey: keys.batches })
    return null
  } catch (problem) {
    if (!(problem instanceof Problem)) return { status: 0, message: 'The server cannot be reached.' }
    if (problem.status === 401) void queries.invalidateQueries({ queryKey: keys.session })
    return { status: problem.status, message: problem.message, retryAfterMs: problem.retryAfterMs }
  }
}
