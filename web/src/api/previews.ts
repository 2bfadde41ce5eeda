import { keepPreviousData, useMutation, useQuery } from '@tanstack/react-query'
import { answer, client, Problem, type Schemas } from './client'
import type { StartedIn } from './types'

/**
 * What a start would give; with `anyPan` nobody has said which pan it is in, and one that suits is taken. `unsure` are
 * the places of lines that are in doubt. The last good answer stays in sight while the next is worked out.
 */
export function useStartPreview(start: StartedIn | null, anyPan: boolean, unsure: readonly number[]) {
  return useQuery<Schemas['PreviewOut'], Problem>({
    queryKey: ['start-preview', start, anyPan, unsure],
    queryFn: ({ signal }) =>
      answer(client.POST('/api/v1/previews/start', { params: { query: { any_pan: anyPan, unsure: [...unsure] } }, body: start as StartedIn, signal })),
    enabled: start !== null,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}

/** What a sentence says of the strained liquid. */
export function useSentence(text: string, panId: string, units: Schemas['SentenceIn']['units']) {
  return useQuery<Schemas['SentenceOut'], Problem>({
    queryKey: ['sentence', text, panId, units],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/previews/sentence', { body: { text, units, ...(panId && { pan_id: panId }) }, signal })),
    enabled: text.trim() !== '',
    retry: false,
  })
}

/** One line of what went in, while it is typed. */
export function useLinePreview(text: string) {
  return useQuery<Schemas['LinesOut'], Problem>({
    queryKey: ['line', text],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/previews/line', { body: { text }, signal })),
    enabled: text.trim() !== '',
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** A pasted list, or one line read or corrected: lines as they can be kept. */
export function useReadLines() {
  return useMutation<Schemas['LinesOut'], Problem, Schemas['LineIn'] | Schemas['ListIn'] & { list: true }>({
    mutationFn: (input) =>
      'list' in input
        ? answer(client.POST('/api/v1/previews/list', { body: { text: input.text } }))
        : answer(client.POST('/api/v1/previews/line', { body: input })),
  })
}

export function useConcentrate(concentrate: Schemas['ConcentrateIn'] | null) {
  return useQuery<Schemas['ConcentrateOut'], Problem>({
    queryKey: ['concentrate', concentrate],
    queryFn: ({ signal }) =>
      answer(client.POST('/api/v1/previews/concentrate', { body: concentrate as Schemas['ConcentrateIn'], signal })),
    enabled: concentrate !== null,
    placeholderData: keepPreviousData,
    retry: false,
  })
}

/** What goes into a recipe that was saved from elsewhere, the file as it is. */
export function useReadRecipe() {
  return useMutation<Schemas['RecipeOut'], Problem, string>({
    mutationFn: (text) => answer(client.POST('/api/v1/previews/recipe', { body: text, bodySerializer: (body) => body, headers: { 'Content-Type': 'text/plain' } })),
  })
}
