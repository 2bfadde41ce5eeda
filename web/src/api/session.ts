import { useMutation, useQuery, useQueryClient, queryOptions } from '@tanstack/react-query'
import { answer, client, Problem } from './client'
import { belongTo } from './kept'
import { isKept, type Owner } from './outbox'
import type { Session } from './types'
import { keys } from './keys'

export const ownerOf = (session: Session): Owner => ({ person: session.person, kitchen: session.kitchen_id, name: session.name })

export const whoIsThere = queryOptions({ queryKey: keys.session, queryFn: () => answer(client.GET('/api/v1/session')), staleTime: Infinity })

export function useSession() {
  return useQuery(whoIsThere)
}

/** Changes of who is signed in, or of their preferences: everything else is asked for anew. */
export function useSessionChange<T>(call: (input: T) => Promise<Session>) {
  const queries = useQueryClient()
  return useMutation<Session, Problem, T>({
    mutationFn: call,
    onSuccess: (session) => {
      queries.removeQueries({ predicate: (query) => query.queryKey[0] !== 'session' })
      belongTo(session)
      queries.setQueryData(keys.session, session)
    },
  })
}

/** The reader's units: at once, from what is here already, and told to the server when it answers. */
export function useSetUnits() {
  const queries = useQueryClient()
  return useMutation<Session, Problem, Session['units']>({
    mutationFn: (units) => answer(client.PATCH('/api/v1/preferences', { body: { units } })),
    onMutate: (units) => {
      queries.setQueryData<Session>(keys.session, (session) => session && { ...session, units })
    },
    retry: (count, error) => isKept(error.status) && count < 5,
    // One after the other: what was tapped last is what stays.
    scope: { id: 'units' },
  })
}
