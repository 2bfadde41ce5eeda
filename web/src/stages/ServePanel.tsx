import { Suspense, useState } from 'react'
import { Link } from 'wouter'
import { useRights } from '../api/rights'
import type { Batch, Payload } from '../api/types'
import { clock } from '../shared/clock'
import { useSay, Words } from '../shared/units'
import { Spoons } from './Spoons'
import { Button } from '../ui/Button'
import { TextField } from '../ui/TextField'
import { Figure, reasonOf } from '../shared/Figure'
import { Cautions } from '../shared/Cautions'
import { Salt } from './Salt'
// No part by itself: what stands beneath it would move once it came, under a finger that taps there.
import { HowWasIt } from './HowWasIt'
import { KeepCard } from './KeepCard'
import { part } from '../ui/part'
import { wantedAgain } from './plan/wish'
import { useBench } from './useBench'

const MeatSheet = part(() => import('./MeatSheet'))
const KeepDish = part(() => import('./KeepDish'))

/** How salty it is likely to be. */
export function Beneath() {
  return <Salt height={170} />
}

/** When it is on the table, and when to start what goes with it: a strip of the evening. */
function OnTheTable({ ready, wanted, onRecord }: { ready: NonNullable<Batch['ready']>; wanted: Batch['wanted']; onRecord: (payload: Payload) => void }) {
  const say = useSay()
  return (
    <section aria-label="On the table" className="grid gap-1">
      <p className={`text-lg font-semibold ${ready.stands === 'late' ? 'text-heat' : ready.stands === 'in_time' ? 'text-done' : ''}`}>
        <Words of={ready.said} />
      </p>
      {ready.sides.length > 0 && (
        <ul className="flex flex-wrap gap-x-5 gap-y-1">
          {ready.sides.map(({ key, label, at }) => (
            <li key={key}>
              <span className="font-semibold">{clock(at)}</span> <span className="text-quiet">{label}</span>
            </li>
          ))}
        </ul>
      )}
      {wanted && ready.later.length > 0 && (
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-quiet">Later by</span>
          {ready.later.map(({ said, minutes }) => (
            <Button key={minutes} onClick={() => onRecord(wantedAgain(wanted, { minutes }))}>
              {say(said)}
            </Button>
          ))}
        </div>
      )}
    </section>
  )
}

/** What it came to: yield, portions, body, salt. */
export default function ServePanel() {
  const { batch, busy, onRecord, problem } = useBench()
  const { records, arranges } = useRights()
  const say = useSay()
  const [measured, setMeasured] = useState('')
  const [meat, setMeat] = useState(false)
  const [keeping, setKeeping] = useState(false)
  const { pot, wanted, served } = batch
  return (
    <div className="grid gap-5">
      <div className="grid gap-x-4 gap-y-3 grid-cols-2 sm:grid-cols-3 xl:grid-cols-[repeat(5,auto)]">
        <Figure label={batch.finished ? 'yield' : 'yield, about'} value={say(served.volume)} note={wanted && served.plates === 0 ? `wanted ${say(wanted.amount)}` : ''} />
        <Figure
          label="portions"
          value={served.portions ?? '–'}
          note={wanted?.portion ? `of ${say(wanted.portion)}${wanted.by_people && served.portions === wanted.people + 1 ? `: your ${wanted.people}, and one for the pot` : ''}` : 'no portion size was given'}
        />
        <Figure label="body" value={pot.body.everyday} note={pot.body.does} explains={['body', 'What is body?']} reason={reasonOf(pot.reasons, 'body')} />
        <Figure label="taste" explains={['strength', 'What is strength?']} value={pot.taste} note={say(pot.times_strained)} reason={reasonOf(pot.reasons, 'strength')} />
        <Figure
          label="salt"
          explains={['salt', 'Salt in per cent?']}
          tone="text-salt"
          value={`${pot.salt.best.toFixed(2)}\u00a0%`}
          note={served.sodium ? `${say(served.sodium)} of sodium a helping` : ''}
          reason={reasonOf(pot.reasons, 'salt')}
        />
      </div>
      {!batch.finished && (
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => setMeat(true)}>Meat and sauce</Button>
          {served.plate && batch.act.kind !== 'plate' && (
            <Button disabled={busy} onClick={() => onRecord(served.plate as unknown as Payload)}>
              {served.plates > 0 ? 'Another plate is out' : 'Plate by plate: the first is out'}
            </Button>
          )}
          {served.in_a_pan && batch.act.kind !== 'plate' && (
            <Button disabled={busy} onClick={() => onRecord(served.in_a_pan as unknown as Payload)}>
              Each boiled up in a hot pan: the first is out
            </Button>
          )}
          {meat && (
            <Suspense>
              <MeatSheet onClose={() => setMeat(false)} />
            </Suspense>
          )}
        </div>
      )}
      {batch.ready && <OnTheTable ready={batch.ready} wanted={wanted} onRecord={onRecord} />}
      {batch.account && (
        <p aria-label="In short" className="text-xl">
          <Words of={batch.account} />
        </p>
      )}
      {batch.finished && <KeepCard />}
      {batch.finished && <HowWasIt />}
      <Spoons />
      {!batch.finished && <p className="text-quiet"><Words of={served.on_plate} /></p>}
      {batch.finished ? (
        <p className="text-quiet">Everything that happened stays in the log.</p>
      ) : (
        <form
          // The bar finishes by this form, with what was measured.
          id="finish"
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault()
            onRecord({ kind: 'finished', ...(measured.trim() && { yield_ml: measured }) })
          }}
        >
          <TextField
            label="Measured yield, if you like"
            placeholder={say(served.volume)}
            value={measured}
            onChange={setMeasured}
            error={problem?.at('yield_ml')}
            className="w-56"
          />
          {batch.act.kind !== 'finish' && (
            <Button type="submit" look="main">
              Finish
            </Button>
          )}
        </form>
      )}
      {!batch.finished && <KeepCard />}
      <p className="flex flex-wrap gap-x-6">
        {batch.finished && (
          <Link href={`/batches/${batch.id}/story`} className="inline-flex min-h-12 items-center font-semibold underline">
            How it went, and why
          </Link>
        )}
        {records && batch.finished && (
          <Link href={`/start?again=${batch.id}`} className="inline-flex min-h-12 items-center font-semibold underline">
            Cook it again
          </Link>
        )}
        {arranges && batch.finished && (
          <button type="button" className="min-h-12 font-semibold underline" onClick={() => setKeeping(true)}>
            Keep it as a house dish
          </button>
        )}
        {batch.house_dish && (
          <Link href={`/house-dishes/${batch.house_dish}`} className="inline-flex min-h-12 items-center font-semibold underline">
            Its house dish
          </Link>
        )}
        <Link href={`/batches/${batch.id}/pass`} className="inline-flex min-h-12 items-center font-semibold underline">
          Card for the pass
        </Link>
      </p>
      {keeping && (
        <Suspense>
          <KeepDish onClose={() => setKeeping(false)} />
        </Suspense>
      )}
      <Cautions cautions={batch.serve_cautions} />
    </div>
  )
}
