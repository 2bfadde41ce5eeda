import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from './client'
import { belongTo } from './kept'
import { keys } from './keys'

export type GivenRole = Schemas['RoleIn']['role']

/** Who works in the kitchen, and who is invited. */
export function useBrigade() {
  return useQuery<Schemas['BrigadeOut'], Problem>({ queryKey: keys.brigade, queryFn: ({ signal }) => answer(client.GET('/api/v1/kitchen/people', { signal })) })
}

/** The kitchens of whoever is signed in. */
export function useKitchens(asked: boolean) {
  return useQuery<Schemas['WorksInOut'][], Problem>({ queryKey: [...keys.brigade, 'kitchens'], queryFn: ({ signal }) => answer(client.GET('/api/v1/kitchens', { signal })), enabled: asked })
}

/** Something changes of who works here. */
export function useArrange<T, A>(call: (input: T) => Promise<A>) {
  const queries = useQueryClient()
  return useMutation<A, Problem, T>({ mutationFn: call, onSuccess: () => queries.invalidateQueries({ queryKey: keys.brigade }) })
}

/** This browser works in another kitchen from now on: everything is asked for anew. */
export function useMove<T>(call: (input: T) => Promise<unknown>) {
  const queries = useQueryClient()
  return useMutation<Schemas['SessionOut'], Problem, T>({
    mutationFn: async (input) => {
      await call(input)
      return answer(client.GET('/api/v1/session'))
    },
    onSuccess: (session) => {
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
      belongTo(session)
      queries.setQueryData(keys.session, session)
    },
  })
}
