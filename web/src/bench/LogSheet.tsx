import type { UseMutationResult } from '@tanstack/react-query'
import { Link } from 'wouter'
import type { Problem } from '../api/client'
import type { Payload, ToldBatch } from '../api/types'
import { clock } from '../shared/clock'
import { useSay, Words } from '../shared/units'
import { Button } from '../ui/Button'
import { Sheet } from '../ui/Sheet'
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
    </Sheet>
  )
}

export function LogList({ batch, append }: Omit<Props, 'onClose'>) {
  const say = useSay()
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
      {append.error && <p role="alert" className="mt-3 font-medium text-heat">{append.error.message}</p>}
    </>
  )
}
