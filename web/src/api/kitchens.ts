import { keepPreviousData, useQuery, queryOptions } from '@tanstack/react-query'
import { answer, client } from './client'
import { keys } from './keys'

export const theKitchen = queryOptions({ queryKey: keys.kitchen, queryFn: () => answer(client.GET('/api/v1/kitchen')) })

export function useKitchen() {
  return useQuery(theKitchen)
}

/** Ingredients by name, the kitchen's own among them. */
export function useIngredients(sought: string) {
  return useQuery({
    queryKey: ['ingredients', sought],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/ingredients', { params: { query: { q: sought } }, signal })),
    enabled: sought.trim() !== '',
    placeholderData: keepPreviousData,
    staleTime: 60_000,
  })
}

export function useLarder() {
  return useQuery({ queryKey: keys.larder, queryFn: () => answer(client.GET('/api/v1/larder')) })
}

export function useDevices() {
  return useQuery({ queryKey: keys.devices, queryFn: () => answer(client.GET('/api/v1/devices')) })
}
