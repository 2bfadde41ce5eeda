import { keepPreviousData, useQuery } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from './client'
import { keys } from './keys'
import { useLists } from './lists'

export type Mixture = Schemas['MixtureOut']

/** The thickeners that the kitchen mixes itself, and how such a one may go in. */
export function useMixtures() {
  return useQuery({ queryKey: keys.mixtures, queryFn: () => answer(client.GET('/api/v1/mixtures')) })
}

/** How a list would be understood, once it stands still. */
export function useMixtureRead(mixture: Schemas['MixtureIn'] | null) {
  return useQuery<Schemas['MixtureRead'], Problem>({
    queryKey: ['mixture', mixture],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/previews/mixture', { body: mixture as Schemas['MixtureIn'], signal })),
    enabled: mixture !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}

/** Everything that thickens: what the trade lists, and before it what the kitchen mixes itself. */
export function useThickeners(): { key: string; label: string; dry: string }[] {
  const { schools } = useLists()
  const own = useMixtures().data?.mixtures ?? []
  return [...own.map(({ key, name }) => ({ key, label: name, dry: name })), ...schools]
}
