import { useQuery, queryOptions } from '@tanstack/react-query'
import { answer, client, type Schemas } from './client'

/** What the trade lists and the page offers; it changes only with the server. */
export const theLists = queryOptions({ queryKey: ['lists'], queryFn: () => answer(client.GET('/api/v1/lists')), staleTime: Infinity })

export function useLists(): Schemas['ListsOut'] {
  return useQuery(theLists).data ?? NO_LISTS
}

/** Whether the lists are there, or cannot be had just now. */
export const useListed = (): boolean => !useQuery(theLists).isLoading

const NONE: Schemas['ShownOut'] = { value: 0, metric: '', us: '' }

const NO_LISTS: Schemas['ListsOut'] = { schools: [], salts: [], dishes: [], avoided: [], signs: [], covers: [], sieves: [], liquids: [], cooling_places: [], uses: [], spoon: [], tongue: [], palate: [], tasters: [], moments: [], points: [], meats: [], tastes: [], stocks: [], salt_words: [], heats: [], fat_rests: [], draws: [], reductions: [], poured_off: [], ways_to_measure: [], hot_expansion_percent: 0, steam_g_min_per_kw: 0, most_lines: 0, kinds: [], usual_oven: NONE, usual_hours: NONE }
