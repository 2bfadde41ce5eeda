import { useQueries } from '@tanstack/react-query'
import { Link, useSearch } from 'wouter'
import { theBatch } from '../api/batches'
import { isWhole, type Batch } from '../api/types'
import { Ribbon } from '../figures/Ribbon'
import { clock, day } from '../shared/clock'
import { Header } from '../shared/Header'
import { useSay, Words } from '../shared/units'
import { STAGES } from '../stages/registry'
import { MOST_COMPARED } from './compared'

/** Two to four batches above each other, each drawn to the same scale. */
export function ComparePage() {
  const ids = new URLSearchParams(useSearch()).getAll('of')
  const found = useQueries({ queries: ids.slice(0, MOST_COMPARED).map(theBatch) })
  const batches = found.flatMap(({ data }) => (data && isWhole(data) ? [data] : []))
  const most = Math.max(...batches.flatMap(({ ribbon }) => ribbon.map(({ from_ml }) => from_ml)), 1)
  const waiting = found.some(({ isPending }) => isPending)
  return (
    <>
      <Header title="Side by side" detail="Drawn to one scale" />
      <main className="mx-auto max-w-6xl px-4 pb-16 md:px-7">
        {waiting && <p role="status" className="mt-4 text-quiet">They are being fetched.</p>}
        {!waiting && batches.length < found.length && <p role="alert" className="mt-4 font-medium text-heat">Not all of them can be shown.</p>}
        <ul className="divide-y divide-line">
          {(waiting ? [] : batches).map((batch) => (
            <li key={batch.id} className="grid items-end gap-x-8 gap-y-2 py-4 lg:grid-cols-[minmax(0,1fr)_24rem]">
              <OnScale batch={batch} most={most} />
              <Figures batch={batch} />
            </li>
          ))}
        </ul>
      </main>
    </>
  )
}

function OnScale({ batch, most }: { batch: Batch; most: number }) {
  const say = useSay()
  return (
    <div className="min-w-0">
      <h2 className="text-xl leading-tight break-words">
        <Link href={`/batches/${batch.id}/${batch.finished ? 'story' : ''}`} className="inline-flex min-h-12 items-center underline">
          {batch.name}
        </Link>
      </h2>
      <p className="text-quiet">
        {day(batch.created_at)} · {batch.pan.name}
      </p>
      <Ribbon
        stages={STAGES}
        stretches={batch.ribbon.map((s) => ({ ...s, volume: say(s.liquid), salt: `${s.salt_percent.toFixed(2)} %`, fat: s.fat && say(s.fat), vapour: s.vapour && say(s.vapour), added: s.added && say(s.added) }))}
        ahead=""
        next={null}
        open={null}
        clock={clock(Date.parse(batch.log.at(-1)?.at ?? batch.created_at))}
        fullMl={most}
        low
      />
    </div>
  )
}

function Figures({ batch }: { batch: Batch }) {
  const say = useSay()
  const figures = [
    ['made', say(batch.served.volume)],
    ['body', batch.pot.body.everyday],
    ['salt', `${batch.pot.salt.best.toFixed(2)}\u00a0%`],
    ['taste', batch.pot.taste],
  ] as const
  return (
    <div>
      <dl className="grid grid-cols-2 gap-x-4 gap-y-1 sm:grid-cols-4">
        {figures.map(([label, value]) => (
          <div key={label}>
            <dt className="text-sm text-quiet">{label}</dt>
            <dd className={`text-xl leading-tight font-bold ${label === 'salt' ? 'text-salt' : ''}`}>{value}</dd>
          </div>
        ))}
      </dl>
      {batch.account && (
        <p className="mt-1 text-quiet">
          <Words of={batch.account} />
        </p>
      )}
    </div>
  )
}
