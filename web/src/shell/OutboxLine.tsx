import { Suspense, useState } from 'react'
import { useLists } from '../api/lists'
import { ownerOf, useSession } from '../api/session'
import { useOpenKept } from '../api/batches'
import { useLive, useOutbox } from '../api/live'
import { again, belongs, settle, type Waiting } from '../api/outbox'
import { Button } from '../ui/Button'
import { clock } from '../shared/clock'
import { described } from './entries'
import { part } from '../ui/part'

const MendSheet = part(() => import('./MendSheet'))

/** Keeps the page up to date, and says what the server has not taken yet, why, and whose it is. */
export function OutboxLine() {
  useLive()
  useOpenKept()
  return <Kept />
}

/** What is kept in this browser; on the sign-in page too, so that nobody thinks it lost. */
export function Kept() {
  const session = useSession()
  const owner = session.data?.signed_in ? ownerOf(session.data) : null
  const { waiting, hurry } = useOutbox(owner)
  const [mending, setMending] = useState<Waiting | null>(null)
  const mine = waiting.filter((one) => owner && belongs(one, owner))
  const theirs = waiting.filter((one) => !owner || !belongs(one, owner))
  const waits = mine.filter((one) => one.state === 'waits')
  const stuck = mine.filter((one) => one.state !== 'waits')
  if (waiting.length === 0) return null
  const why = waits.find((one) => one.why !== null)?.why ?? 'The server does not answer.'
  return (
    <div role="status" aria-label="Kept in this browser" className={mine.length > 0 ? 'print:hidden sticky top-0 z-40 max-h-[45dvh] overflow-y-auto border-b-2 border-heat bg-panel px-4 py-2 md:px-7' : 'px-4 py-1 md:px-7 print:hidden'}>
      {waits.length > 0 && (
        <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
          <p className="min-w-64 flex-1 font-medium">
            {why} {count(waits.length, 'is', 'are')} kept in this browser and sent as soon as it is taken.
          </p>
          <Button onClick={hurry}>Try now</Button>
        </div>
      )}
      {stuck.map((one) => (
        <Stuck key={one.id} one={one} onMend={() => setMending(one)} />
      ))}
      {theirs.length > 0 && (
        <p className="py-1 text-quiet">
          {count(theirs.length, 'of', 'of')} {[...new Set(theirs.map((one) => one.owner.name))].join(', ')}{' '}
          {theirs.length === 1 ? 'waits' : 'wait'} in this browser until they sign in here again.
        </p>
      )}
      {mending && (
        <Suspense>
          <MendSheet one={mending} onClose={() => setMending(null)} />
        </Suspense>
      )}
    </div>
  )
}

const count = (n: number, one: string, more: string) => (n === 1 ? `One entry ${one}` : `${n} entries ${more}`)

/** An entry that was not taken: what it is, why, and what can be done with it. */
function Stuck({ one, onMend }: { one: Waiting; onMend: () => void }) {
  const { kinds } = useLists()
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-t border-line py-2 first:border-t-0">
      <p className="min-w-64 flex-1">
        <span className="font-semibold">
          {described(one.payload, kinds)}, {clock(one.at)}.
        </span>{' '}
        <span className="text-heat">
          {one.state === 'refused' ? 'Not taken:' : 'Set aside:'} {one.why}
        </span>
      </p>
      <div className="flex gap-2">
        <Button onClick={onMend}>Mend it</Button>
        <Button onClick={() => again(one.id)}>Send again</Button>
        <Button onClick={() => settle(one.id)}>Drop it</Button>
      </div>
    </div>
  )
}
