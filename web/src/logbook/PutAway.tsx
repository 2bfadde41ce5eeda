import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { Link } from 'wouter'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useRights } from '../api/rights'
import { day } from '../shared/clock'
import { Button } from '../ui/Button'
import { useArrange } from './ThisBatch'

/** What was put away: brought back, or deleted for good by who owns the kitchen. */
export function PutAway() {
  const away = useQuery<Schemas['BatchPage'], Problem>({
    queryKey: [...keys.batches, 'away'],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches', { params: { query: { away: true } }, signal })),
  })
  if (away.isError) return <p role="alert" className="font-medium text-heat">{away.error.message}</p>
  if (away.data?.items.length === 0) return <p className="text-quiet">Nothing was put away.</p>
  return (
    <ul aria-label="Put away" className="divide-y divide-line border-y border-line">
      {away.data?.items.map((batch) => (
        <li key={batch.id} className="py-2">
          <Away batch={batch} />
        </li>
      ))}
    </ul>
  )
}

function Away({ batch }: { batch: Schemas['BatchLine'] }) {
  const arrange = useArrange(batch.id)
  const queries = useQueryClient()
  const { owns: owner } = useRights()
  const [sure, setSure] = useState(false)
  const remove = useMutation<unknown, Problem>({
    mutationFn: () => answer(client.DELETE('/api/v1/batches/{batch_id}', { params: { path: { batch_id: batch.id } } })),
    onSuccess: () => Promise.all([queries.invalidateQueries({ queryKey: keys.batches }), queries.invalidateQueries({ queryKey: keys.shelf }), queries.invalidateQueries({ queryKey: keys.kitchen })]),
  })
  return (
    <div className="flex flex-wrap items-center justify-between gap-3">
      <p>
        <Link href={`/batches/${batch.id}`} className="font-semibold underline">
          {batch.name}
        </Link>{' '}
        <span className="text-quiet">{day(batch.created_at)}</span>
      </p>
      {sure ? (
        <div className="flex flex-wrap items-center gap-2">
          <p className="text-heat">Its log goes, what is kept of it, and what it taught the kitchen. Nothing brings it back.</p>
          <Button disabled={remove.isPending} onClick={() => remove.mutate()}>
            Delete it for good
          </Button>
          <Button onClick={() => setSure(false)}>Keep it</Button>
        </div>
      ) : (
        <div className="flex flex-wrap gap-2">
          <Button disabled={arrange.isPending} onClick={() => arrange.mutate({ away: false })}>
            <span>
              Bring back<span className="sr-only"> {batch.name}</span>
            </span>
          </Button>
          {owner && (
            <Button onClick={() => setSure(true)}>
              <span>
                Delete<span className="sr-only"> {batch.name}</span>
              </span>
            </Button>
          )}
        </div>
      )}
      {(arrange.error ?? remove.error) && <p role="alert" className="font-medium text-heat">{(arrange.error ?? remove.error)?.message}</p>}
    </div>
  )
}
