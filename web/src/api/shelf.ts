import { useQuery } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from './client'
import { keys } from './keys'

export type Jar = Schemas['JarOut']

/** Everything that the kitchen keeps, what is to be used soonest first. */
export function useShelf() {
  return useQuery<Jar[], Problem>({
    queryKey: keys.shelf,
    queryFn: () => answer(client.GET('/api/v1/shelf')),
    refetchInterval: 60_000,
  })
}

/** How each way would cool what stands aside, before it is set to cool. */
export function useChilling(batchId: string, seq: number, what: Jar['what'] | 'pot', asked: boolean) {
  return useQuery<Schemas['ChillOut'][], Problem>({
    queryKey: ['chilling', batchId, seq, what],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches/{batch_id}/chilling/{what}', { params: { path: { batch_id: batchId, what } }, signal })),
    enabled: asked,
    retry: false,
  })
}
