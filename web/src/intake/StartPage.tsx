import { useState } from 'react'
import { useLocation } from 'wouter'
import { EVENTS_VERSION } from '../api/client'
import { useKitchen } from '../api/kitchens'
import { useSession } from '../api/session'
import { onPages, useBatches, useStart } from '../api/batches'
import { newId } from '../api/id'
import { Header } from '../shared/Header'
import { saveDraft, savedDraft, startOf, type Draft } from './draft'
import { StartForm } from './StartForm'

/** A new batch, from the strained liquid in a pan. An interrupted start is kept. */
export function StartPage() {
  const kitchen = useKitchen()
  const start = useStart()
  const person = useSession().data?.person ?? ''
  const [, go] = useLocation()
  const [ids] = useState(() => ({ id: newId(), event_id: newId() }))
  const batches = useBatches()
  if (!kitchen.data || batches.isLoading) return <Header title="Start a batch" />
  const { pans, burners } = kitchen.data
  const saved = savedDraft(person)
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
      title="Start a batch"
      kitchen={kitchen.data}
      initial={initial}
      onDraft={(draft) => saveDraft(person, draft)}
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
            onSuccess: (batch) => {
              saveDraft(person, null)
              go(`/batches/${batch.id}`)
            },
          },
        )
      }}
    />
  )
}
