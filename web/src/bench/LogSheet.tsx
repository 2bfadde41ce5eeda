import { useQuery, type UseMutationResult } from '@tanstack/react-query'
import { Link } from 'wouter'
import { useState } from 'react'
import { answer, client, type Problem, type Schemas } from '../api/client'
import { keys } from '../api/keys'
import type { Payload, ToldBatch } from '../api/types'
import { ThisBatch } from '../logbook/ThisBatch'
import { clock } from '../shared/clock'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
import { TextField } from '../ui/TextField'
import { Unfold } from '../ui/Unfold'
import { WhenForm } from './WhenForm'

export type Append = UseMutationResult<ToldBatch, Problem, Payload>

interface Props {
  batch: ToldBatch
  append: Append
  onClose: () => void
}

/** Everything that happened, newest first. Nothing is erased: what was taken back stays, struck. */
export function LogSheet({ batch, append, onClose }: Props) {
  return (
    <Sheet open onClose={onClose} title="Log" description="Nothing is erased. What is taken back can be brought back.">
      <LogList batch={batch} append={append} />
      <p className="mt-3">
        <Link href={`/batches/${batch.id}/sheet`} onClick={onClose} className="inline-flex min-h-12 items-center font-semibold underline">
          The batch on one sheet, to print
        </Link>
      </p>
      <ThisBatch id={batch.id} name={batch.name} onGone={onClose} />
    </Sheet>
  )
}

export function LogList({ batch, append }: Omit<Props, 'onClose'>) {
  const say = useSay()
  const authors = useQuery<Schemas['AuthorOut'][], Problem>({
    queryKey: [...keys.batch(batch.id), 'authors', batch.last_seq],
    queryFn: ({ signal }) => answer(client.GET('/api/v1/batches/{batch_id}/authors', { params: { path: { batch_id: batch.id } }, signal })),
    retry: false,
  })
  // Where one cooks alone it goes without saying.
  const several = new Set(authors.data?.map(({ name }) => name)).size > 1
  const by = new Map(several ? authors.data?.map(({ event, name }) => [event, name]) : [])
  const entries = [...batch.log].reverse().filter((entry) => entry.kind !== 'struck')
  return (
    <>
      {batch.concerns.map((concern, i) => (
        <p key={i} role="alert" className="mb-2 rounded-xl border-2 border-heat px-3 py-2 font-medium">
          <Words of={concern} />
        </p>
      ))}
      <ol className="divide-y divide-line">
        {entries.map((entry) => {
          const strike = batch.log.findLast((e) => e.kind === 'struck' && e.strikes === entry.id && !e.struck)
          return (
            <li key={entry.id} className="flex items-center justify-between gap-4 py-2">
              <div className="min-w-0">
                <p className={entry.struck ? 'text-quiet line-through' : 'font-medium'}><Words of={entry.text} /></p>
                {by.has(entry.id) && <p className="text-sm text-quiet">{by.get(entry.id)}</p>}
                {entry.undoable ? (
                  <Unfold
                    label={`, it was at another time: ${say(entry.text)}`}
                    summary={<span className="mt-1 inline-flex min-h-11 items-center gap-1.5 rounded-xl border-2 border-line px-3 text-base font-semibold">{clock(entry.at)}</span>}
                  >
                    <WhenForm label={`When: ${say(entry.text)}`} act="It was then" onDate={(at) => append.mutate({ kind: 'dated', event: entry.id, at })} />
                  </Unfold>
                ) : (
                  <p className="text-sm text-quiet">{clock(entry.at)}</p>
                )}
                {entry.how_much && (
                  <Unfold
                    label={`, it was another amount: ${say(entry.text)}`}
                    summary={<span className="mt-1 inline-flex min-h-11 items-center gap-1.5 rounded-xl border-2 border-line px-3 text-base font-semibold">{say(entry.how_much)}</span>}
                  >
                    <MendForm label={`How much: ${say(entry.text)}`} amount={say(entry.how_much)} append={append} event={entry.id} />
                  </Unfold>
                )}
                {(entry.told || entry.problem) && (
                  <p className="text-sm font-semibold text-heat">
                    {entry.told && 'The clock it came with was wrong. '}
                    {entry.problem && <>Not counted: <Words of={entry.problem} /></>}
                  </p>
                )}
              </div>
              {entry.undoable && (
                <Button className="shrink-0" onClick={() => append.mutate({ kind: 'struck', event: entry.id })}>
                  <span>
                    Take back<span className="sr-only">: {say(entry.text)}</span>
                  </span>
                </Button>
              )}
              {entry.struck && strike && (
                <Button className="shrink-0" onClick={() => append.mutate({ kind: 'struck', event: strike.id })}>
                  <span>
                    Bring back<span className="sr-only">: {say(entry.text)}</span>
                  </span>
                </Button>
              )}
            </li>
          )
        })}
      </ol>
      {append.error && !append.error.at('amount') && <p role="alert" className="mt-3 font-medium text-heat">{append.error.message}</p>}
    </>
  )
}

/** How much it was after all; what was first entered stays in the log. */
function MendForm({ label, amount, event, append }: { label: string; amount: string; event: string; append: Append }) {
  const [meant, setMeant] = useState(amount)
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(submitted) => {
        submitted.preventDefault()
        append.mutate({ kind: 'meant', event, amount: meant })
      }}
    >
      <TextField label={label} hideLabel value={meant} onChange={setMeant} error={append.error?.at('amount')} autoComplete="off" className="w-40" />
      <Button type="submit" disabled={!meant.trim() || meant === amount || append.isPending}>
        It was so much
      </Button>
    </form>
  )
}
