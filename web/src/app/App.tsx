import { QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, Suspense } from 'react'
import { Redirect, Route, Switch } from 'wouter'
import { Problem } from '../api/client'
import { keys, useSession } from '../api/hooks'
import { BatchList } from '../logbook/BatchList'
import { Bench } from '../stages/Bench'
import { StartPage } from '../stages/intake/StartPage'
import { Welcome } from '../welcome/Welcome'
import { Notice } from './Notice'
import { Kept, OutboxLine } from './OutboxLine'
import { StoveAlarm } from './StoveAlarm'
import { Units } from './units'

// Arranging the kitchen is rare; the bench should not wait for it.
const KitchenPage = lazy(async () => ({ default: (await import('../kitchen/KitchenPage')).KitchenPage }))

const queries: QueryClient = new QueryClient({
  // Signed out elsewhere, or for too long: the page finds out by the first answer that says so.
  queryCache: new QueryCache({
    onError: (error, query) => {
      if (error instanceof Problem && error.status === 401 && query.queryKey[0] !== 'session') void queries.invalidateQueries({ queryKey: keys.session })
    },
  }),
  defaultOptions: { queries: { refetchOnWindowFocus: true, staleTime: 1000 } },
})

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <Pages />
    </QueryClientProvider>
  )
}

function Pages() {
  const session = useSession()
  if (session.isPending) return null
  if (session.isError) return <Notice title="No answer" text={session.error.message} onRetry={() => void session.refetch()} />
  if (!session.data.signed_in) {
    return (
      <>
        <Kept />
        <Welcome demoOffered={session.data.demo_offered} />
      </>
    )
  }
  return (
    <Units value={session.data.units}>
      <OutboxLine />
      <StoveAlarm />
      <Switch>
        <Route path="/" component={BatchList} />
        <Route path="/start" component={StartPage} />
        <Route path="/kitchen">
          <Suspense>
            <KitchenPage />
          </Suspense>
        </Route>
        <Route path="/batches/:id/:view?">{({ id, view }) => <Bench key={id} id={id} view={view} />}</Route>
        <Route>
          <Redirect to="/" replace />
        </Route>
      </Switch>
    </Units>
  )
}
