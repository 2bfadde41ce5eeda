import { infiniteQueryOptions, useInfiniteQuery, useMutation, useQueries, useQuery, useQueryClient, queryOptions } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { answer, client, EVENTS_VERSION, Problem, type Schemas } from './client'
import { newId } from './id'
import { belongs, isKept, putOut, waiting } from './outbox'
import type { ToldBatch, Batch, Payload } from './types'
import { keys } from './keys'
import { ownerOf, useSession } from './session'
import { theKitchen } from './kitchens'
import { theLists } from './lists'

export const theBatches = infiniteQueryOptions({
  queryKey: keys.batches,
  initialPageParam: '',
  queryFn: ({ pageParam }) => answer(client.GET('/api/v1/batches', { params: { query: { cursor: pageParam } } })),
  getNextPageParam: (page) => page.next,
  // Should the stream miss something.
  refetchInterval: 60_000,
})

export function useBatches() {
  return useInfiniteQuery(theBatches)
}

/** The batches on a list's pages, each once: what is open stands on the first, wherever it comes again. */
export const onPages = (pages: readonly Schemas['BatchPage'][] | undefined): Schemas['BatchLine'][] => [
  ...new Map((pages ?? []).flatMap((page) => page.items).map((one) => [one.id, one])).values(),
]

export const theBatch = (id: string) =>
  queryOptions<ToldBatch, Problem>({
    queryKey: keys.batch(id),
    queryFn: () => answer(client.GET('/api/v1/batches/{batch_id}', { params: { path: { batch_id: id } } })),
    retry: (count, problem) => problem.status !== 404 && problem.status !== 401 && count < 3,
  })

/** A batch. News of it comes by the stream; it is asked for now and then all the same, should that fail. */
export function useBatch(id: string) {
  return useQuery({ ...theBatch(id), refetchInterval: 10_000 })
}

/** How often a pot that nobody looks at is asked for, ms: long before its six hours ahead are over. */
const ASIDE_MS = 30 * 60_000
/** A pot that nobody looks at is asked for at leisure, and draws nothing. */
const aside = { staleTime: Infinity, refetchInterval: ASIDE_MS, notifyOnChangeProps: [] as [] }
/** More pots than a kitchen has on its heat; those there, and then the newest, are kept. */
const MOST_KEPT = 12
/** How long what is looked at goes first, ms. */
export const FIRST_MS = 3000

/** The open batches are here as they stand, whichever is looked at: any of them may be wanted without the server. */
export function useOpenKept() {
  const batches = useBatches()
  const open = onPages(batches.data?.pages)
    .filter((one) => !one.finished)
    .sort((a, b) => Number(b.on_heat) - Number(a.on_heat))
    .slice(0, MOST_KEPT)
  const [first, setFirst] = useState(true)
  useEffect(() => {
    const timer = setTimeout(() => setFirst(false), FIRST_MS)
    return () => clearTimeout(timer)
  }, [])
  // Nor can any of them be drawn without these.
  useQuery({ ...theLists, enabled: !first })
  useQuery({ ...theKitchen, enabled: !first })
  useQueries({
    queries: open.map(({ id }) => ({ ...theBatch(id), ...aside, enabled: !first })),
  })
  useQueries({
    queries: open.map(({ id, on_heat }) => ({ ...theHoursAhead(id), ...aside, enabled: !first && on_heat })),
  })
}

/** Asked for anew so often, ms: what is learned of the stove moves it. */
const ALONE_MS = 60_000

const theHoursAhead = (id: string) =>
  queryOptions<Schemas['AloneOut'], Problem>({
    queryKey: ['alone', id],
    queryFn: () => answer(client.GET('/api/v1/batches/{batch_id}/alone', { params: { path: { batch_id: id } } })),
    refetchInterval: ALONE_MS,
    retry: false,
  })

/** What is needed of a heated pot once nobody can be asked any more; asked for while somebody can, and after every entry. */
export function useHoursAhead({ id, last_seq, act }: Batch): Schemas['AloneOut'] | undefined {
  const heated = act.doing === 'boil'
  const { data, refetch } = useQuery({ ...theHoursAhead(id), enabled: heated })
  const stale = heated && data !== undefined && data.last_seq !== last_seq
  useEffect(() => {
    if (stale) void refetch()
  }, [stale, last_seq, refetch])
  // What was true of the pot before its last entry is not told as of now.
  return stale ? undefined : data
}

/**
 * Record an event. Its id is made here, once, so that a retry after a lost answer changes nothing. Where the
 * server does not answer, or will not take anything from here now, it is kept in the browser and sent later;
 * the promise is then kept with what was known last. What it finds wrong with the entry stands beside its field.
 */
export function useAppend(batchId: string) {
  const queries = useQueryClient()
  const session = useSession()
  return useMutation<ToldBatch, Problem, Payload>({
    mutationFn: async (payload) => {
      const body = { id: newId(), at: new Date().toISOString(), version: EVENTS_VERSION, payload }
      const known = queries.getQueryData<ToldBatch>(keys.batch(batchId))
      const owner = session.data && ownerOf(session.data)
      const later = (why: string | null) => {
        if (!owner || !known) throw new Problem(0, 'This page does not know who you are yet. Load it again.')
        try {
          putOut({ batchId, ...body, owner }, why)
        } catch {
          throw new Problem(0, 'The server does not answer, and this browser has no room left to keep it. Write it down.')
        }
        return known
      }
      // What waits goes first: order is part of what happened.
      if (owner && waiting().some((one) => one.batchId === batchId && one.state === 'waits' && belongs(one, owner))) return later(null)
      try {
        return await answer(client.POST('/api/v1/batches/{batch_id}/events', { params: { path: { batch_id: batchId } }, body }))
      } catch (problem) {
        if (problem instanceof Problem && isKept(problem.status)) return later(problem.status === 0 ? null : problem.message)
        throw problem
      }
    },
    networkMode: 'always',
    onSuccess: (batch) => {
      queries.setQueryData(keys.batch(batchId), batch)
      void queries.invalidateQueries({ queryKey: keys.batches })
      void queries.invalidateQueries({ queryKey: keys.shelf })
    },
  })
}

export function useStart() {
  const queries = useQueryClient()
  return useMutation<ToldBatch, Problem, Schemas['StartIn']>({
    mutationFn: (body) => answer(client.POST('/api/v1/batches', { body })),
    onSuccess: (batch) => {
      queries.setQueryData(keys.batch(batch.id), batch)
      void queries.invalidateQueries({ queryKey: keys.batches })
    },
  })
}
