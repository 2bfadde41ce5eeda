import { dehydrate, hydrate, QueryCache, QueryClient, type DehydratedState } from '@tanstack/react-query'
import { del, get, set } from 'idb-keyval'
import { Problem, type Schemas } from './client'

/** Answers are kept so long, ms: a batch may stand in the cold for days. */
const KEPT_MS = 7 * 24 * 3_600_000
/** How often they are written, ms. */
const WRITTEN_MS = 1000
/** The page does not wait longer for what was kept, ms. */
const PATIENCE_MS = 1000
/** The answers that a page cannot do without, by the first part of their key. */
const KEPT = ['session', 'lists', 'kitchen', 'batches', 'batch', 'alone']

/** Where they lie in the browser's own database. */
const PLACE = 'answers'
/** Whose they are: what another page of this browser still holds of somebody else is not written over them. */
const WHOSE = 'spissus-whose'

interface Kept {
  whose: string
  /** Answers of another shape are of no use to this page. */
  shapes: string
  at: number
  answers: DehydratedState
}

/**
 * What the server answered, and who asked. The last answers outlive a reload, so that a page without the server
 * shows how everything stood; they go when their person signs out, or when anybody else is found signed in.
 */
export const queries = new QueryClient({
  queryCache: new QueryCache({
    onError: (error, query) => {
      // Signed out elsewhere, or for too long: the page finds out by the first answer that says so.
      if (error instanceof Problem && error.status === 401 && query.queryKey[0] !== 'session') void queries.invalidateQueries({ queryKey: ['session'] })
    },
    onSuccess: (answered, query) => {
      if (query.queryKey[0] === 'session') belongTo(answered as Schemas['SessionOut'])
    },
  }),
  // A kitchen's own network may have the server, and not the world.
  defaultOptions: { queries: { refetchOnWindowFocus: true, staleTime: 1000, networkMode: 'always' }, mutations: { networkMode: 'always' } },
})
for (const key of KEPT) queries.setQueryDefaults([key], { gcTime: KEPT_MS })

/** Whether somebody was signed in here when the page was last open. */
export const knowsSomebody = (): boolean => localStorage.getItem(WHOSE) !== null

let written: ReturnType<typeof setTimeout> | undefined

/** From now on the answers are this person's; what is here of anybody else goes. */
export function belongTo(session: Schemas['SessionOut']): void {
  const whose = session.signed_in ? `${session.person} ${session.kitchen_id}` : ''
  // What somebody was typing here waits for them, and is nobody else's.
  if (whose && (sessionStorage.getItem(WHOSE) ?? whose) !== whose) sessionStorage.clear()
  if (whose) sessionStorage.setItem(WHOSE, whose)
  if (whose === (localStorage.getItem(WHOSE) ?? '')) return
  if (localStorage.getItem(WHOSE)) queries.removeQueries({ predicate: ({ queryKey }) => queryKey[0] !== 'session' })
  if (whose) localStorage.setItem(WHOSE, whose)
  else localStorage.removeItem(WHOSE)
  clearTimeout(written)
  written = undefined
  void del(PLACE).catch(() => undefined)
}

/** Take up what was kept, and keep what is answered from now on. */
export async function takeUp(): Promise<void> {
  try {
    // One browser is known to keep its database shut for ever.
    const kept = await Promise.race([get<Kept>(PLACE), new Promise<undefined>((late) => setTimeout(late, PATIENCE_MS))])
    if (kept && kept.whose === localStorage.getItem(WHOSE) && kept.shapes === __SHAPES__ && Date.now() - kept.at < KEPT_MS) {
      hydrate(queries, kept.answers)
      // All of it is asked for anew as soon as it is shown.
      void queries.invalidateQueries()
    }
  } catch {
    // A browser that keeps nothing: everything is asked for.
  }
  queries.getQueryCache().subscribe(() => {
    written ??= setTimeout(write, WRITTEN_MS)
  })
  // A tablet may be put away at any moment.
  document.addEventListener('visibilitychange', () => {
    if (document.visibilityState === 'hidden') write()
  })
}

function write(): void {
  clearTimeout(written)
  written = undefined
  const session = queries.getQueryData<Schemas['SessionOut']>(['session'])
  const whose = localStorage.getItem(WHOSE)
  if (!session?.signed_in || !whose || whose !== `${session.person} ${session.kitchen_id}`) return
  const answers = dehydrate(queries, {
    shouldDehydrateMutation: () => false,
    shouldDehydrateQuery: ({ queryKey, state }) => state.data !== undefined && KEPT.includes(String(queryKey[0])),
  })
  void set(PLACE, { whose, shapes: __SHAPES__, at: Date.now(), answers } satisfies Kept).catch(() => undefined)
}
