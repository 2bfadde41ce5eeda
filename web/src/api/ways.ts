import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { answer, client, Problem, type Schemas } from './client'
import type { Route, Routes, Wanted } from './types'

export type SchoolKey = Schemas['OptionOut']['key']

/** The ways to a wish, also with a school that was asked for. While it is dragged one question is out at a time, the newest next, and every answer is shown. */
export function useRoutes(batchId: string, seq: number, wanted: Wanted, school: SchoolKey | null) {
  const [asked, setAsked] = useState({ seq, wanted, school })
  const query = useQuery<Routes, Problem>({
    queryKey: ['routes', batchId, asked.seq, asked.wanted, asked.school],
    queryFn: ({ signal }) =>
      answer(
        client.POST('/api/v1/batches/{batch_id}/routes', {
          params: { path: { batch_id: batchId }, query: asked.school ? { asked: asked.school } : {} },
          body: asked.wanted,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
  const newer = asked.seq !== seq || asked.school !== school || JSON.stringify(asked.wanted) !== JSON.stringify(wanted)
  if (newer && !query.isFetching) setAsked({ seq, wanted, school })
  return { ...query, isPlaceholderData: newer || query.isPlaceholderData }
}

/** The arithmetic of a way, once somebody wants to see it, and the wish stands still. */
export function useReasons(batchId: string, seq: number, wanted: Wanted, { kind, own }: Pick<Route, 'kind' | 'own'>, settled: boolean) {
  return useQuery<Schemas['ReasonOut'][], Problem>({
    queryKey: ['reasons', batchId, seq, wanted, kind, own],
    queryFn: () =>
      answer(client.POST('/api/v1/batches/{batch_id}/routes/{kind}/reasons', { params: { path: { batch_id: batchId, kind }, query: own ? { asked: own } : {} }, body: wanted })),
    enabled: settled,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}

/** The kitchen's pans for what this pot still has to lose. */
export function usePans(batchId: string, seq: number, body: Schemas['PansIn'] | null) {
  return useQuery<Schemas['PansOut'], Problem>({
    queryKey: ['pans', batchId, seq, body],
    queryFn: ({ signal }) =>
      answer(
        client.POST('/api/v1/batches/{batch_id}/pans', {
          params: { path: { batch_id: batchId } },
          body: body as Schemas['PansIn'],
          signal,
        }),
      ),
    enabled: body !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}

/** What else the pot may be thickened with, on a way like this one. */
export function useSchools(batchId: string, seq: number, wanted: Wanted, { kind, own }: Pick<Route, 'kind' | 'own'>, of: { frozen: boolean; by_spoon: boolean }) {
  return useQuery<Schemas['ChoosingOut'], Problem>({
    queryKey: ['schools', batchId, seq, wanted, kind, own, of],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/batches/{batch_id}/schools', { params: { path: { batch_id: batchId }, query: { like: kind, ...(own ? { hand: own } : {}), ...of } }, body: wanted, signal })),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}
