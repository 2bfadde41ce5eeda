import { useMutation, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { useLocation } from 'wouter'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useRights } from '../api/rights'
import { FileLinks } from '../shared/FileLinks'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'

type Arranged = Schemas['ArrangeIn']

/** A batch under another name, put away, or brought back. */
export function useArrange(id: string) {
  const queries = useQueryClient()
  return useMutation<unknown, Problem, Arranged>({
    mutationFn: (body) => answer(client.PATCH('/api/v1/batches/{batch_id}', { params: { path: { batch_id: id } }, body })),
    onSuccess: () => Promise.all([queries.invalidateQueries({ queryKey: keys.batch(id) }), queries.invalidateQueries({ queryKey: keys.batches })]),
  })
}

/** What is done with a batch as a whole: its name, and whether it stands in the lists. */
export function ThisBatch({ id, name, onGone }: { id: string; name: string; onGone: () => void }) {
  const arrange = useArrange(id)
  const [, go] = useLocation()
  const [called, setCalled] = useState(name)
  const { records } = useRights()
  if (!records) return null
  return (
    <section aria-label="This batch" className="mt-4 grid gap-3 border-t border-line pt-4">
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          arrange.mutate({ name: called })
        }}
      >
        <TextField label="Its name" value={called} onChange={setCalled} error={arrange.error?.at('name')} autoComplete="off" className="w-64" />
        <Button type="submit" disabled={!called.trim() || called.trim() === name || arrange.isPending}>
          Call it that
        </Button>
        <Button
          disabled={arrange.isPending}
          onClick={() =>
            arrange.mutate(
              { away: true },
              {
                onSuccess: () => {
                  onGone()
                  go('/')
                },
              },
            )
          }
        >
          Put it away
        </Button>
      </form>
      <p className="text-sm text-quiet">What is put away stands at the end of the list of batches, and can be brought back.</p>
      <FileLinks id={id} />
      {arrange.error && !arrange.error.at('name') && <p role="alert" className="font-medium text-heat">{arrange.error.message}</p>}
    </section>
  )
}
