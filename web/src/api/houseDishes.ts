import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from './client'
import { keys } from './keys'
import { useSession } from './session'

export type HouseDish = Schemas['HouseDishOut']

/** The kitchen's house dishes, those that were put away too. */
export function useHouseDishes() {
  return useQuery<Schemas['HouseDishLine'][], Problem>({ queryKey: keys.houseDishes, queryFn: ({ signal }) => answer(client.GET('/api/v1/house-dishes', { signal })) })
}

/** A house dish for so many people; for as many as it was kept for where nobody says how many. */
export function useHouseDish(id: string | null, people: number | null) {
  const units = useSession().data?.units ?? 'metric'
  return useQuery<HouseDish, Problem>({
    queryKey: [...keys.houseDishes, id, people, units],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/house-dishes/{dish_id}', { params: { path: { dish_id: id ?? '' }, query: { people, units } }, signal })),
    enabled: id !== null,
    placeholderData: keepPreviousData,
  })
}

/** What it comes to in a pan on a burner. */
export function useComesTo(id: string, people: number | null, pan_id: string | null, burner_id: string | null) {
  return useQuery<Schemas['DishAheadOut'], Problem>({
    queryKey: [...keys.houseDishes, id, 'foreseen', people, pan_id, burner_id],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/house-dishes/{dish_id}/foreseen', { params: { path: { dish_id: id }, query: { people, pan_id, burner_id } }, signal })),
    placeholderData: keepPreviousData,
  })
}

/** Everything that several dishes need. */
export function usePrep(dishes: Schemas['WantedDish'][]) {
  return useQuery<Schemas['PrepOut'], Problem>({
    queryKey: [...keys.houseDishes, 'prep', dishes],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/house-dishes/prep', { body: { dishes }, signal })),
    placeholderData: keepPreviousData,
    enabled: dishes.length > 0,
  })
}

/** Keep a batch as a house dish, or as a later version of one. */
export function useKeepDish() {
  const queries = useQueryClient()
  return useMutation<HouseDish, Problem, Schemas['KeepIn']>({
    mutationFn: (body) => answer(client.POST('/api/v1/house-dishes', { body })),
    onSuccess: (_, { batch_id }) => {
      void queries.invalidateQueries({ queryKey: keys.houseDishes })
      void queries.invalidateQueries({ queryKey: keys.batch(batch_id) })
    },
  })
}

/** Change a dish: each change of what it is like is a version of its own. */
export function useChangeDish(id: string) {
  const queries = useQueryClient()
  return useMutation<HouseDish, Problem, Schemas['ChangeIn']>({
    mutationFn: (body) => answer(client.PATCH('/api/v1/house-dishes/{dish_id}', { params: { path: { dish_id: id } }, body })),
    onSuccess: () => void queries.invalidateQueries({ queryKey: keys.houseDishes }),
  })
}
