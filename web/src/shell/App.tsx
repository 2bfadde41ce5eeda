import { QueryClientProvider } from '@tanstack/react-query'
import { Suspense, useMemo, useState } from 'react'
import { Redirect, Route, Switch, useRoute } from 'wouter'
import { useSession } from '../api/session'
import { queries } from '../api/kept'
import { BatchList } from '../logbook/BatchList'
import { Bench } from '../bench/Bench'
import { tellTimeBy } from '../shared/clock'
import { Shell, type AskedSheet } from '../shared/surroundings'
import { Notice } from '../shared/Notice'
import { useLetters } from '../shared/letters'
import { Skeleton } from '../shared/Skeleton'
import { Kept, OutboxLine } from './OutboxLine'
import { StartPart } from './StartPart'
import { StoveAlarm } from './StoveAlarm'
import { Units } from '../shared/units'
import { part } from '../ui/part'

// The bench should wait for nothing that is needed before it, or rarely.
const JoinPage = part(() => import('../people/JoinPage'))
const OneselfSheet = part(() => import('../people/OneselfSheet'))
const ExplainedSheet = part(() => import('../explained/ExplainedSheet'))
const ClaimSheet = part(() => import('../people/ClaimSheet'))
const Welcome = part(async () => ({ default: (await import('../people/Welcome')).Welcome }))
const ComparePage = part(async () => ({ default: (await import('../logbook/ComparePage')).ComparePage }))
const HouseDishes = part(async () => ({ default: (await import('../house-dishes/HouseDishes')).HouseDishes }))
const HouseDishPage = part(async () => ({ default: (await import('../house-dishes/HouseDishPage')).HouseDishPage }))
const JarPage = part(async () => ({ default: (await import('../logbook/JarPage')).JarPage }))
const KitchenPage = part(async () => ({ default: (await import('../kitchen/KitchenPage')).KitchenPage }))

export function App() {
  return (
    <QueryClientProvider client={queries}>
      <Pages />
    </QueryClientProvider>
  )
}

/** What was asked of whoever is here, over the page. */
function Asked({ sheet, onClose }: { sheet: AskedSheet; onClose: () => void }) {
  if (sheet === 'oneself') return <OneselfSheet onClose={onClose} />
  if (sheet === 'claim' || sheet === 'sign-in') return <ClaimSheet known={sheet === 'sign-in'} onClose={onClose} />
  return <ExplainedSheet of={sheet.slice('explained:'.length)} onClose={onClose} />
}

function Pages() {
  const session = useSession()
  tellTimeBy(session.data?.time_zone ?? '')
  const [joins, joining] = useRoute('/join/:code?')
  const [asked, setAsked] = useState<AskedSheet | null>(null)
  const shell = useMemo(() => ({ ask: setAsked }), [])
  useLetters({ '?': () => session.data?.signed_in && setAsked('explained:') })
  // Without the server it is who was there last.
  if (!session.data && session.isPending) return <Skeleton />
  if (!session.data) return <Notice title="No answer" text={session.error.message} onRetry={() => void session.refetch()} />
  if (joins)
    return (
      <Suspense>
        <JoinPage code={joining?.code ?? ''} onFirst={async () => session.data.signed_in || (await import('./visit')).newcomer()} />
      </Suspense>
    )
  if (!session.data.signed_in) {
    return (
      <>
        <Kept />
        <Suspense>
          <Welcome demoOffered={session.data.demo_offered} onBegin={async (said) => (await import('./visit')).visit(said)} />
        </Suspense>
      </>
    )
  }
  return (
    // Another kitchen is another set of pages.
    <Units key={session.data.kitchen_id} value={session.data.units}>
      <Shell value={shell}>
        <OutboxLine />
        <StoveAlarm />
        <Switch>
          <Route path="/" component={BatchList} />
          <Route path="/start">
            <Suspense>
              <StartPart />
            </Suspense>
          </Route>
          <Route path="/kitchen">
            <Suspense>
              <KitchenPage />
            </Suspense>
          </Route>
          <Route path="/compare">
            <Suspense>
              <ComparePage />
            </Suspense>
          </Route>
          <Route path="/house-dishes/:dish?">
            {({ dish }) => <Suspense>{dish ? <HouseDishPage key={dish} id={dish} /> : <HouseDishes />}</Suspense>}
          </Route>
          <Route path="/shelf/:jar">
            {({ jar }) => (
              <Suspense>
                <JarPage key={jar} id={jar} />
              </Suspense>
            )}
          </Route>
          <Route path="/batches/:id/:view?">{({ id, view }) => <Bench key={id} id={id} view={view} />}</Route>
          <Route>
            <Redirect to="/" replace />
          </Route>
        </Switch>
        {asked && (
          <Suspense>
            <Asked sheet={asked} onClose={() => setAsked(null)} />
          </Suspense>
        )}
      </Shell>
    </Units>
  )
}
