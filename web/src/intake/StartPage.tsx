import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link, useLocation, useSearch } from 'wouter'
import { answer, client, EVENTS_VERSION } from '../api/client'
import { useHouseDish } from '../api/houseDishes'
import { useKitchen } from '../api/kitchens'
import { useSession } from '../api/session'
import { onPages, theBatch, useBatches, useStart } from '../api/batches'
import { newId } from '../api/id'
import { keys } from '../api/keys'
import { isWhole, type Kitchen, type Payload } from '../api/types'
import { Header } from '../shared/Header'
import { wantedAgain } from '../stages/plan/wish'
import { draftAgain, draftOfDish, saveDraft, savedDraft, startOf, type Draft } from './draft'
import { StartForm } from './StartForm'

/** What was cooked before and is begun again: what went in, what is wished, and of which house dish it is. */
interface Again {
  draft: Draft
  wish: Payload | null
  houseDish: string | null
}

/** A new batch, from the strained liquid in a pan. An interrupted start is kept; a dish that is cooked again begins with
 * what went into it, and with the same wish. */
export function StartPage() {
  const kitchen = useKitchen()
  const start = useStart()
  const person = useSession().data?.person ?? ''
  const [, go] = useLocation()
  const [ids] = useState(() => ({ id: newId(), event_id: newId() }))
  const queries = useQueryClient()
  const again = useAgain(kitchen.data)
  const batches = useBatches()
  if (!kitchen.data || batches.isLoading || again === 'asked') return <Header title="Start a batch" />
  const { pans, burners } = kitchen.data
  const saved = again ? again.draft : savedDraft(person)
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
      otherwise={
        !again && (
          <Link href="/house-dishes" className="inline-flex min-h-12 items-center font-semibold underline">
            From a house dish
          </Link>
        )
      }
      onDone={(draft) => {
        const body = startOf(draft)
        if (!body) return
        start.mutate(
          { ...ids, at: new Date().toISOString(), version: EVENTS_VERSION, name: draft.name.trim() || 'Sauce', start: body, house_dish: again?.houseDish ?? null },
          {
            onSuccess: async (batch) => {
              if (again?.wish) {
                // Should it not arrive, the bar asks.
                const wished = answer(client.POST('/api/v1/batches/{batch_id}/events', { params: { path: { batch_id: batch.id } }, body: { id: newId(), at: new Date().toISOString(), version: EVENTS_VERSION, payload: again.wish } }))
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

/** The batch or the house dish that is cooked again: `asked` while it is fetched, null where there is none. */
function useAgain(kitchen: Kitchen | undefined): Again | 'asked' | null {
  const asked = new URLSearchParams(useSearch())
  const [batchId, dishId, people] = [asked.get('again'), asked.get('dish'), Number(asked.get('people'))]
  const batch = useQuery({ ...theBatch(batchId ?? ''), enabled: batchId !== null })
  const dish = useHouseDish(dishId, people || null)
  if ((batchId !== null && batch.isPending) || (dishId !== null && dish.isPending) || !kitchen) return 'asked'
  if (dish.data?.begins) {
    const { begins, id } = dish.data
    return { draft: draftOfDish(begins, asked.get('pan'), asked.get('burner')), wish: begins.wanted, houseDish: id }
  }
  if (!batch.data || !isWhole(batch.data)) return null
  const { wanted, house_dish } = batch.data
  // For when it is wanted is said anew.
  return { draft: draftAgain(batch.data, kitchen), wish: wanted && wantedAgain({ ...wanted, minutes: null }, {}), houseDish: house_dish }
}
