import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answer, client, EVENTS_VERSION, type Problem, type Schemas } from './client'
import type { Payload } from './types'

/** What an entry would change of the pot; null asks nothing. What is wrong with it is said when it is sent. */
export function useForeseen(batchId: string, seq: number, payload: Payload | null) {
  return useQuery<Schemas['ForeseenOut'], Problem>({
    queryKey: ['foreseen', batchId, seq, payload],
    queryFn: ({ signal }) =>
      answer(
        client.POST('/api/v1/batches/{batch_id}/foreseen', {
          params: { path: { batch_id: batchId } },
          body: { version: EVENTS_VERSION, payload: payload as Payload },
          signal,
        }),
      ),
    enabled: payload !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}

/** What may finish the sauce, by what it lacks. */
export function useFinishes(batchId: string, seq: number, asked: boolean) {
  return useQuery<Schemas['FinishOut'][], Problem>({
    queryKey: ['finishes', batchId, seq],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches/{batch_id}/finishes', { params: { path: { batch_id: batchId } }, signal })),
    enabled: asked,
    placeholderData: keepPreviousData,
    retry: false,
  })
}
