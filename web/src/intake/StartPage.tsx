import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useLocation, useSearch } from 'wouter'
import { answer, client, EVENTS_VERSION } from '../api/client'
import { useKitchen } from '../api/kitchens'
import { useSession } from '../api/session'
import { onPages, theBatch, useBatches, useStart } from '../api/batches'
import { newId } from '../api/id'
import { keys } from '../api/keys'
import { isWhole, type Batch } from '../api/types'
import { Header } from '../shared/Header'
import { wantedAgain } from '../stages/plan/wish'
import { draftAgain, saveDraft, savedDraft, startOf, type Draft } from './draft'
import { StartForm } from './StartForm'

/** A new batch, from the strained liquid in a pan. An interrupted start is kept; a dish that is cooked again begins with
 * what went into it, and with the same wish. */
export function StartPage() {
  const kitchen = useKitchen()
  const start = useStart()
  const person = useSession().data?.person ?? ''
  const [, go] = useLocation()
  const [ids] = useState(() => ({ id: newId(), event_id: newId() }))
  const queries = useQueryClient()
  const again = useAgain(new URLSearchParams(useSearch()).get('again'))
  const batches = useBatches()
  if (!kitchen.data || batches.isLoading || again === 'asked') return <Header title="Start a batch" />
  const { pans, burners } = kitchen.data
  const saved = again ? draftAgain(again, kitchen.data) : savedDraft(person)
  // A pot is taken to go where none stands.
  const boiling = onPages(batches.data?.pages).filter((batch) => batch.on_heat)
  const free = burners.find(({ name }) => !boiling.some(({ burner }) => burner === name)) ?? burners[0]
  const initial: Draft = {
    ...saved,
    panId: pans.some((pan) => pan.id === saved.panId) ? saved.panId : (pans[0]?.id ?? ''),
    burnerId: burners.some((burner) => burner.id === saved.burnerId) ? saved.burnerId : (free?.id ?? ''),
  }
  return (
    <StartForm
      title={again ? 'Cook it again' : 'Start a batch'}
      kitchen={kitchen.data}
      initial={initial}
      // What was begun besides stays as it is.
      onDraft={(draft) => !again && saveDraft(person, draft)}
      problem={start.error}
      busy={start.isPending}
      act="This is what I have"
      boiling={boiling}
      onDone={(draft) => {
        const body = startOf(draft)
        if (!body) return
        start.mutate(
          { ...ids, at: new Date().toISOString(), version: EVENTS_VERSION, name: draft.name.trim() || 'Sauce', start: body },
          {
            onSuccess: async (batch) => {
              if (again?.wanted) {
                // For when it is wanted is said anew. Should it not arrive, the bar asks.
                const payload = wantedAgain({ ...again.wanted, minutes: null }, {})
                const wished = answer(client.POST('/api/v1/batches/{batch_id}/events', { params: { path: { batch_id: batch.id } }, body: { id: newId(), at: new Date().toISOString(), version: EVENTS_VERSION, payload } }))
                await wished.catch(() => null)
                await queries.invalidateQueries({ queryKey: keys.batch(batch.id) })
              }
              if (!again) saveDraft(person, null)
              go(`/batches/${batch.id}`)
            },
          },
        )
      }}
    />
  )
}

/** A batch whose dish is cooked again: `asked` while it is fetched, null where there is none. */
function useAgain(id: string | null): Batch | 'asked' | null {
  const found = useQuery({ ...theBatch(id ?? ''), enabled: id !== null })
  if (id === null || found.isError) return null
  return found.data ? (isWhole(found.data) ? found.data : null) : 'asked'
}
