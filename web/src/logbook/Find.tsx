import { useQuery } from '@tanstack/react-query'
import { useState, type ReactNode } from 'react'
import { Link } from 'wouter'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import { useSettled } from '../shared/useSettled'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { MOST_COMPARED } from './compared'
import { PutAway } from './PutAway'

/** Batches by their words: the dish, what went in, what was noted, how it was; and those that were put away. */
export default function Find({ children }: { children: (batch: Schemas['BatchLine']) => ReactNode }) {
  const [sought, setSought] = useState('')
  const [away, setAway] = useState(false)
  const [beside, setBeside] = useState<string[]>([])
  const toggle = (id: string) => setBeside(beside.includes(id) ? beside.filter((one) => one !== id) : [...beside, id])
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
            <li key={batch.id} className="grid items-center gap-x-4 max-sm:pb-3 sm:grid-cols-[minmax(0,1fr)_auto]">
              {children(batch)}
              <Button look={beside.includes(batch.id) ? 'main' : 'plain'} className="max-sm:justify-self-start" aria-pressed={beside.includes(batch.id)} disabled={!beside.includes(batch.id) && beside.length >= MOST_COMPARED} onClick={() => toggle(batch.id)}>
                <span>
                  {beside.includes(batch.id) ? 'Chosen' : 'Compare'}
                  <span className="sr-only"> {batch.name}</span>
                </span>
              </Button>
            </li>
          ))}
        </ul>
      )}
      {beside.length > 1 && (
        <Link href={`/compare?${new URLSearchParams(beside.map((id) => ['of', id])).toString()}`} className="inline-flex min-h-12 items-center justify-self-start font-semibold underline">
          Put these {beside.length} side by side
        </Link>
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
