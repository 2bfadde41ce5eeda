import { useQuery } from '@tanstack/react-query'
import { answer, client, type Problem, type Schemas } from '../api/client'
import type { Batch, Payload } from '../api/types'
import { day } from '../shared/clock'
import { Button } from '../ui/Button'

interface Props {
  batch: Batch
  /** The stage that is open; while the way is chosen, the first. */
  stage: string
  onRecord: (payload: Payload) => void
}

/** What was noted of this dish last time, at the moment that it concerns. */
export function LastTime({ batch, stage, onRecord }: Props) {
  const minded = batch.log.filter(({ kind, struck }) => kind === 'minded' && !struck).length
  const { data = [] } = useQuery<Schemas['NoteOut'][], Problem>({
    queryKey: ['last time', batch.id, batch.name, minded],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches/{batch_id}/last-time', { params: { path: { batch_id: batch.id } }, signal })),
    enabled: !batch.finished,
    retry: false,
    staleTime: Infinity,
  })
  const notes = data.filter((one) => one.stage === stage)
  if (batch.finished || notes.length === 0) return null
  return (
    <ul aria-label="From last time" className="mb-3 grid gap-2 lg:grid-cols-2">
      {notes.map(({ note, text, label, written }) => (
        <li key={note} className="flex flex-wrap items-center justify-between gap-x-4 gap-y-2 rounded-2xl border-2 border-done bg-panel px-4 py-2">
          <p className="min-w-0 flex-1 basis-60">
            <span className="block text-sm text-quiet">
              from {day(written)}, {label}
            </span>
            <span className="block text-xl font-bold break-words">{text}</span>
          </p>
          <span className="flex gap-2">
            <Button onClick={() => onRecord({ kind: 'minded', note, keep: false })}>
              <span>
                Done<span className="sr-only">: {text}</span>
              </span>
            </Button>
            <Button onClick={() => onRecord({ kind: 'minded', note, keep: true })}>
              <span>
                Keep it<span className="sr-only">: {text}</span>
              </span>
            </Button>
          </span>
        </li>
      ))}
    </ul>
  )
}
