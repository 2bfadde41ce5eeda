import { infiniteQueryOptions, keepPreviousData, useInfiniteQuery, useMutation, useQueries, useQuery, useQueryClient, queryOptions, type QueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { answer, client, EVENTS_VERSION, Problem, type Schemas } from './client'
import { newId } from './id'
import { belongTo } from './kept'
import { belongs, isKept, putOut, waiting, type Owner } from './outbox'

/** A batch as the server tells it: what it could not work out is null, and named in `missing`. */
export type ToldBatch = Schemas['BatchOut']
type Drawn = 'pan' | 'burner' | 'start' | 'pot' | 'curve' | 'suggested' | 'served'
/** A batch with all that the bench draws. */
export type Batch = { [K in keyof ToldBatch]: K extends Drawn ? NonNullable<ToldBatch[K]> : ToldBatch[K] }
export type Pot = Schemas['PotOut']
export type Route = Schemas['RouteOut']
export type Routes = Schemas['RoutesOut']
export type Shown = Schemas['ShownOut']
export type Said = Schemas['SaidOut']
export type Part = Said[number]
export type Session = Schemas['SessionOut']
export type Kitchen = Schemas['KitchenOut']
export type PanShape = Schemas['PanShape']
export type Wanted = Schemas['Wanted']
export type StartedIn = Schemas['StartedIn']
export type Payload = Schemas['EventIn']['payload']
export type Line = Schemas['LineOut']
export type Estimated = Schemas['EstimatedOut']
export type Ingredient = Schemas['IngredientOut']
export type { Schemas }
export type Device = Schemas['DeviceOut']
export type Stage = Batch['act']['stage']
export type Answer = Batch['act']['answers'][number]

export const keys = {
  session: ['session'] as const,
  kitchen: ['kitchen'] as const,
  larder: ['larder'] as const,
  devices: ['devices'] as const,
  batches: ['batches'] as const,
  batch: (id: string) => ['batch', id] as const,
}

const drawn: readonly Drawn[] = ['pan', 'burner', 'start', 'pot', 'curve', 'suggested', 'served']

/** Whether the bench can draw it; without a readable start there is only its log. */
export const isWhole = (batch: ToldBatch): batch is Batch => drawn.every((part) => batch[part] !== null)

export const ownerOf = (session: Session): Owner => ({ person: session.person, kitchen: session.kitchen_id, name: session.name })

const whoIsThere = queryOptions({ queryKey: keys.session, queryFn: () => answer(client.GET('/api/v1/session')), staleTime: Infinity })

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

const theKitchen = queryOptions({ queryKey: keys.kitchen, queryFn: () => answer(client.GET('/api/v1/kitchen')) })

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

/** What the trade lists and the page offers; it changes only with the server. */
const theLists = queryOptions({ queryKey: ['lists'], queryFn: () => answer(client.GET('/api/v1/lists')), staleTime: Infinity })

export function useLists(): Schemas['ListsOut'] {
  return useQuery(theLists).data ?? NO_LISTS
}

/** Whether the lists are there, or cannot be had just now. */
export const useListed = (): boolean => !useQuery(theLists).isLoading

const NO_LISTS: Schemas['ListsOut'] = { schools: [], salts: [], dishes: [], avoided: [], signs: [], covers: [], sieves: [], liquids: [], cooling_places: [], uses: [], spoon: [], tongue: [], tastes: [], stocks: [], salt_words: [], heats: [], fat_rests: [], draws: [], reductions: [], poured_off: [], ways_to_measure: [], hot_expansion_percent: 0, steam_g_min_per_kw: 0, most_lines: 0, beside: [] }

export function useLarder() {
  return useQuery({ queryKey: keys.larder, queryFn: () => answer(client.GET('/api/v1/larder')) })
}

const theBatches = infiniteQueryOptions({
  queryKey: keys.batches,
  initialPageParam: '',
  queryFn: ({ pageParam }) => answer(client.GET('/api/v1/batches', { params: { query: { cursor: pageParam } } })),
  getNextPageParam: (page) => page.next,
  // Should the stream miss something.
  refetchInterval: 60_000,
})

export function useBatches() {
  return useInfiniteQuery(theBatches)
}

/** The batches on a list's pages, each once: what is open stands on the first, wherever it comes again. */
export const onPages = (pages: readonly Schemas['BatchPage'][] | undefined): Schemas['BatchLine'][] => [
  ...new Map((pages ?? []).flatMap((page) => page.items).map((one) => [one.id, one])).values(),
]

const theBatch = (id: string) =>
  queryOptions<ToldBatch, Problem>({
    queryKey: keys.batch(id),
    queryFn: () => answer(client.GET('/api/v1/batches/{batch_id}', { params: { path: { batch_id: id } } })),
    retry: (count, problem) => problem.status !== 404 && problem.status !== 401 && count < 3,
  })

/** A batch. News of it comes by the stream; it is asked for now and then all the same, should that fail. */
export function useBatch(id: string) {
  return useQuery({ ...theBatch(id), refetchInterval: 10_000 })
}

/** How often a pot that nobody looks at is asked for, ms: long before its six hours ahead are over. */
const ASIDE_MS = 30 * 60_000
/** A pot that nobody looks at is asked for at leisure, and draws nothing. */
const aside = { staleTime: Infinity, refetchInterval: ASIDE_MS, notifyOnChangeProps: [] as [] }
/** More pots than a kitchen has on its heat; those there, and then the newest, are kept. */
const MOST_KEPT = 12
/** How long what is looked at goes first, ms. */
export const FIRST_MS = 3000

/** The open batches are here as they stand, whichever is looked at: any of them may be wanted without the server. */
export function useOpenKept() {
  const batches = useBatches()
  const open = onPages(batches.data?.pages)
    .filter((one) => !one.finished)
    .sort((a, b) => Number(b.on_heat) - Number(a.on_heat))
    .slice(0, MOST_KEPT)
  const [first, setFirst] = useState(true)
  useEffect(() => {
    const timer = setTimeout(() => setFirst(false), FIRST_MS)
    return () => clearTimeout(timer)
  }, [])
  // Nor can any of them be drawn without these.
  useQuery({ ...theLists, enabled: !first })
  useQuery({ ...theKitchen, enabled: !first })
  useQueries({
    queries: open.map(({ id }) => ({ ...theBatch(id), ...aside, enabled: !first })),
  })
  useQueries({
    queries: open.map(({ id, on_heat }) => ({ ...theHoursAhead(id), ...aside, enabled: !first && on_heat })),
  })
}

/** Asked for anew so often, ms: what is learned of the stove moves it. */
const ALONE_MS = 60_000

const theHoursAhead = (id: string) =>
  queryOptions<Schemas['AloneOut'], Problem>({
    queryKey: ['alone', id],
    queryFn: () => answer(client.GET('/api/v1/batches/{batch_id}/alone', { params: { path: { batch_id: id } } })),
    refetchInterval: ALONE_MS,
    retry: false,
  })

/** What is needed of a heated pot once nobody can be asked any more; asked for while somebody can, and after every entry. */
export function useHoursAhead({ id, last_seq, act }: Batch): Schemas['AloneOut'] | undefined {
  const heated = act.doing === 'boil'
  const { data, refetch } = useQuery({ ...theHoursAhead(id), enabled: heated })
  const stale = heated && data !== undefined && data.last_seq !== last_seq
  useEffect(() => {
    if (stale) void refetch()
  }, [stale, last_seq, refetch])
  // What was true of the pot before its last entry is not told as of now.
  return stale ? undefined : data
}

/** What the page at this address shows is asked for at once, while the page is still being read. */
export function askAhead(queries: QueryClient, address: string) {
  const [, place, batchId] = address.split('/')
  void queries.prefetchQuery(whoIsThere)
  void queries.prefetchQuery(theLists)
  void queries.prefetchInfiniteQuery(theBatches)
  if (place === 'batches' && batchId) void queries.prefetchQuery(theBatch(batchId))
}

/**
 * Record an event. Its id is made here, once, so that a retry after a lost answer changes nothing. Where the
 * server does not answer, or will not take anything from here now, it is kept in the browser and sent later;
 * the promise is then kept with what was known last. What it finds wrong with the entry stands beside its field.
 */
export function useAppend(batchId: string) {
  const queries = useQueryClient()
  const session = useSession()
  return useMutation<ToldBatch, Problem, Payload>({
    mutationFn: async (payload) => {
      const body = { id: newId(), at: new Date().toISOString(), version: EVENTS_VERSION, payload }
      const known = queries.getQueryData<ToldBatch>(keys.batch(batchId))
      const owner = session.data && ownerOf(session.data)
      const later = (why: string | null) => {
        if (!owner || !known) throw new Problem(0, 'This page does not know who you are yet. Load it again.')
        try {
          putOut({ batchId, ...body, owner }, why)
        } catch {
          throw new Problem(0, 'The server does not answer, and this browser has no room left to keep it. Write it down.')
        }
        return known
      }
      // What waits goes first: order is part of what happened.
      if (owner && waiting().some((one) => one.batchId === batchId && one.state === 'waits' && belongs(one, owner))) return later(null)
      try {
        return await answer(client.POST('/api/v1/batches/{batch_id}/events', { params: { path: { batch_id: batchId } }, body }))
      } catch (problem) {
        if (problem instanceof Problem && isKept(problem.status)) return later(problem.status === 0 ? null : problem.message)
        throw problem
      }
    },
    networkMode: 'always',
    onSuccess: (batch) => {
      queries.setQueryData(keys.batch(batchId), batch)
      void queries.invalidateQueries({ queryKey: keys.batches })
    },
  })
}

export function useStart() {
  const queries = useQueryClient()
  return useMutation<ToldBatch, Problem, Schemas['StartIn']>({
    mutationFn: (body) => answer(client.POST('/api/v1/batches', { body })),
    onSuccess: (batch) => {
      queries.setQueryData(keys.batch(batch.id), batch)
      void queries.invalidateQueries({ queryKey: keys.batches })
    },
  })
}

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

/** The ways to a wish. While it is dragged one question is out at a time, the newest next, and every answer is shown. */
export function useRoutes(batchId: string, seq: number, wanted: Wanted) {
  const [asked, setAsked] = useState({ seq, wanted })
  const query = useQuery<Routes, Problem>({
    queryKey: ['routes', batchId, asked.seq, asked.wanted],
    queryFn: ({ signal }) =>
      answer(
        client.POST('/api/v1/batches/{batch_id}/routes', {
          params: { path: { batch_id: batchId } },
          body: asked.wanted,
          signal,
        }),
      ),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
  const newer = asked.seq !== seq || JSON.stringify(asked.wanted) !== JSON.stringify(wanted)
  if (newer && !query.isFetching) setAsked({ seq, wanted })
  return { ...query, isPlaceholderData: newer || query.isPlaceholderData }
}

/** The arithmetic of a way, once somebody wants to see it, and the wish stands still. */
export function useReasons(batchId: string, seq: number, wanted: Wanted, kind: Route['kind'], settled: boolean) {
  return useQuery<Schemas['ReasonOut'][], Problem>({
    queryKey: ['reasons', batchId, seq, wanted, kind],
    queryFn: () =>
      answer(client.POST('/api/v1/batches/{batch_id}/routes/{kind}/reasons', { params: { path: { batch_id: batchId, kind } }, body: wanted })),
    enabled: settled,
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  })
}

/** What a sentence says of the strained liquid. */
export function useSentence(text: string, panId: string) {
  return useQuery<Schemas['SentenceOut'], Problem>({
    queryKey: ['sentence', text, panId],
    queryFn: ({ signal }) => answer(client.POST('/api/v1/previews/sentence', { body: { text, ...(panId && { pan_id: panId }) }, signal })),
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

export function useDevices() {
  return useQuery({ queryKey: keys.devices, queryFn: () => answer(client.GET('/api/v1/devices')) })
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
