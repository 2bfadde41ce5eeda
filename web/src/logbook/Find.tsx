import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useSettled } from '../shared/useSettled'
import { TextField } from '../ui/TextField'
import { PutAway } from './PutAway'

/** Batches by their words: the dish, what went in, what was noted, how it was; and those that were put away. */
export default function Find({ children }: { children: (batch: Schemas['BatchLine']) => ReactNode }) {
  const [sought, setSought] = useState('')
  const [away, setAway] = useState(false)
  const q = useSettled(sought.trim())
  const found = useQuery<Schemas['BatchPage'], Problem>({
    queryKey: [...keys.batches, 'found', q],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches', { params: { query: { q } }, signal })),
    enabled: q !== '',
  })
  return (
    <search className="mt-8 grid gap-2">
      <TextField label="Find a batch" placeholder="goat, orange" value={sought} onChange={setSought} error={found.error?.message} autoComplete="off" className="max-w-md" type="search" />
      {q !== '' && found.data && (
        <ul aria-label="Found" className="divide-y divide-line border-y border-line">
          {found.data.items.length === 0 && <li className="py-2 text-quiet">No batch has all of these words.</li>}
          {found.data.items.map((batch) => (
            <li key={batch.id}>{children(batch)}</li>
          ))}
        </ul>
      )}
      {away ? (
        <PutAway />
      ) : (
        <button type="button" className="min-h-12 justify-self-start font-semibold text-quiet underline" onClick={() => setAway(true)}>
          What was put away
        </button>
      )}
    </search>
  )
}
