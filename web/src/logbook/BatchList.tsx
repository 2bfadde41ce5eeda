import { Suspense, use, useEffect } from 'react'
import { Link, useLocation } from 'wouter'
import { onPages, useBatches } from '../api/batches'
import { useKitchen } from '../api/kitchens'
import type { Schemas } from '../api/client'
import { useSession } from '../api/session'
import { useRights } from '../api/rights'
import { clock, day } from '../shared/clock'
import { Header } from '../shared/Header'
import { Shell } from '../shared/surroundings'
import { useNow } from '../shared/useNow'
import { Units, useSay } from '../shared/units'
import { SmallPot } from '../figures/SmallPot'
import { sauce } from '../figures/tone'
import { Button } from '../ui/Button'
import { part } from '../ui/part'

const Find = part(() => import('./Find'))
const Shelf = part(() => import('./Shelf'))

/** The stove as it stands, what is set aside, and what is finished. */
export function BatchList() {
  const batches = useBatches()
  const units = use(Units)
  const session = useSession()
  const { records } = useRights()
  const { ask } = use(Shell)
  const [, go] = useLocation()
  const items = onPages(batches.data?.pages)
  const open = items.filter((b) => !b.finished).sort(soonest)
  const onHeat = open.filter((b) => b.on_heat)
  const shelf = open.filter((b) => !b.on_heat)
  const finished = items.filter((b) => b.finished)
  // Who has signed in, or comes back from a pot, goes on from the top.
  useEffect(() => document.querySelector('h1')?.focus({ preventScroll: true }), [])

  return (
    <>
      <Header title="Batches">
        {records && (
          <Button look="main" onClick={() => go('/start')}>
            Start a batch
          </Button>
        )}
      </Header>
      <main className="mx-auto max-w-[110rem] px-4 pb-16 md:px-7">
        {batches.isError && (
          <p role="alert" className="py-4 font-medium text-heat">
            {batches.data ? 'The server does not answer. This is how the stove stood last.' : batches.error.message}
          </p>
        )}
        {session.data?.claimed === false && (
          <p className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line pb-2">
            <span className="min-w-60 flex-1">You are here without a name, in this browser alone. With a name and a password you come back from anywhere.</span>
            <Button onClick={() => ask('claim')}>Keep it</Button>
          </p>
        )}
        {batches.isSuccess && items.length === 0 && records && (
          <div className="py-20 text-center">
            <p className="mb-2 text-2xl font-bold">Nothing on the stove yet</p>
            <p className="mb-2 text-quiet">Strain the braise, measure what came through, and start from there.</p>
            <p className="mb-6 text-quiet">
              A new kitchen has four usual pans and burners in it.{' '}
              <Link href="/kitchen" className="font-semibold underline">
                Put in your own
              </Link>{' '}
              first: depths and times go by them.
            </p>
            <Button look="main" onClick={() => go('/start')}>
              Start a batch
            </Button>
            <p className="mt-6 text-quiet">
              Amounts are told in {units === 'us' ? 'cups, spoons and ounces' : 'millilitres and grams'}, as your browser’s language suggests. The menu above changes that.
            </p>
          </div>
        )}
        {items.length > 0 && (
          <section className="mt-1">
            <h2 className="mb-2 text-base font-semibold text-quiet">On the stove</h2>
            <Stove batches={onHeat} />
          </section>
        )}
        {shelf.length > 0 && (
          <section className="mt-6">
            <h2 className="mb-2 text-base font-semibold text-quiet">On the shelf, off the heat</h2>
            <ul className="grid gap-x-6 gap-y-2 border-b-4 border-steel pb-1 sm:grid-cols-2 xl:grid-cols-3">
              {shelf.map((batch) => (
                <li key={batch.id} className="min-w-0">
                  <Pot batch={batch} />
                </li>
              ))}
            </ul>
          </section>
        )}
        <Suspense>
          <Shelf />
        </Suspense>
        {finished.length > 0 && (
          <section className="mt-6">
            <h2 className="mb-2 text-base font-semibold text-quiet">Finished</h2>
            <ul className="divide-y divide-line border-y border-line">
              {finished.map((batch) => (
                <li key={batch.id}>
                  <Done batch={batch} />
                </li>
              ))}
            </ul>
          </section>
        )}
        {batches.hasNextPage && (
          <Button className="mt-6" onClick={() => void batches.fetchNextPage()} disabled={batches.isFetchingNextPage}>
            Older batches
          </Button>
        )}
        {items.length > 0 && (
          <Suspense>
            <Find>{(batch: Line) => <Done batch={batch} />}</Find>
          </Suspense>
        )}
      </main>
    </>
  )
}

type Line = Schemas['BatchLine']

/** The burners as places: the pot that wants a look next is the largest, and those that are free stand last. */
function Stove({ batches }: { batches: readonly Line[] }) {
  const kitchen = useKitchen()
  const burners = kitchen.data?.burners ?? []
  const free = burners.filter(({ name }) => !batches.some((batch) => batch.burner === name))
  const [first, ...rest] = batches
  return (
    <ul className="grid gap-3 sm:grid-cols-2 lg:grid-cols-4">
      {first && (
        <li className="min-w-0 rounded-2xl border-2 border-ink bg-panel p-3 sm:col-span-2 lg:row-span-2">
          <Pot batch={first} large />
        </li>
      )}
      {rest.map((batch) => (
        <li key={batch.id} className="min-w-0 rounded-2xl border-2 border-line bg-panel p-3 lg:col-span-2">
          <Pot batch={batch} />
        </li>
      ))}
      {free.map((burner) => (
        <li key={burner.id} className="grid min-h-24 content-center rounded-2xl border-2 border-dashed border-line p-3 text-quiet">
          <span className="font-semibold">{burner.name}</span>
          <span>free</span>
        </li>
      ))}
    </ul>
  )
}

/** A pot with its level, its mark, its time, and what is to be done to it. */
function Pot({ batch, large = false }: { batch: Line; large?: boolean }) {
  const say = useSay()
  const { pot } = batch
  return (
    <Link href={`/batches/${batch.id}`} className="flex h-full flex-wrap items-center gap-x-4 gap-y-1 hover:underline">
      {pot && (
        <SmallPot
          pan={pot.pan}
          depthMm={pot.depth_mm}
          fatMm={pot.fat_mm}
          tone={batch.tone ?? 0}
          stop={pot.stop && { mm: pot.stop.value, label: say(pot.stop) }}
          onHeat={batch.on_heat}
          width={large ? 236 : 116}
          height={large ? 190 : 88}
        />
      )}
      <div className="min-w-0 flex-1 basis-44">
        {batch.burner && batch.on_heat && <p className="text-sm text-quiet">{batch.burner}</p>}
        <p className={`leading-tight font-bold break-words ${large ? 'text-2xl' : 'text-lg'}`}>{batch.name}</p>
        {batch.volume === null ? (
          <p className="text-heat">The pot cannot be read: open it.</p>
        ) : (
          <p className="leading-tight">
            <span className="font-semibold">{say(batch.volume)}</span>{' '}
            <span className="text-quiet">
              {batch.body}, <span className="font-semibold text-salt">{batch.salt_percent?.toFixed(2)} %</span>
            </span>
          </p>
        )}
        {batch.concern && <p className="font-semibold text-heat">{batch.concern}</p>}
        {batch.rest && <p className="text-base">{say(batch.rest)}</p>}
        <p className={`leading-tight font-bold ${large ? 'mt-1 text-[2.6rem]' : 'text-2xl'}`}>{batch.look_at && <Countdown at={Date.parse(batch.look_at)} quiet={batch.quiet} />}</p>
        {batch.next && <p className={`leading-tight ${large ? 'text-2xl font-semibold' : 'font-semibold'}`}>{say(batch.next)}</p>}
      </div>
    </Link>
  )
}

/** A finished one, in a line. */
function Done({ batch }: { batch: Line }) {
  const say = useSay()
  return (
    <Link href={`/batches/${batch.id}`} className="grid grid-cols-[1fr_auto] items-center gap-x-6 gap-y-1 py-3 md:grid-cols-[1fr_11rem_13rem_4rem]">
      <div className="min-w-0">
        <p className="text-lg leading-tight font-bold break-words">{batch.name}</p>
        <p className="text-quiet">{[when(batch.created_at), batch.pan].filter(Boolean).join(' · ')}</p>
        {batch.concern && <p className="font-semibold text-heat">{batch.concern}</p>}
        {batch.rest && <p className="text-base">{say(batch.rest)}</p>}
      </div>
      {/* What was there, and what is left of it, to scale. */}
      <div role="img" aria-label={batch.left ? say(batch.left) : 'unknown'} className="hidden h-9 items-end md:flex">
        <div className="h-full w-1/3 rounded-l-sm" style={{ background: sauce(0.25) }} />
        <div className="w-2/3 rounded-r-sm" style={{ height: `${(batch.share ?? 0) * 100}%`, background: sauce(batch.tone ?? 0) }} />
      </div>
      <p className="text-right text-lg md:text-left">
        {batch.volume === null ? (
          <span className="text-base text-heat">The pot cannot be read: open it.</span>
        ) : (
          <>
            <span className="font-bold">{say(batch.volume)}</span>{' '}
            <span className="text-base text-quiet">
              {batch.body}, <span className="font-semibold text-salt">{batch.salt_percent?.toFixed(2)} %</span>
            </span>
          </>
        )}
      </p>
      <p className="hidden text-right font-semibold text-done md:block">{batch.finished ? (batch.how ?? 'done') : 'under way'}</p>
    </Link>
  )
}

/** The pan that needs a look next comes first; what has no clock follows, newest first. */
function soonest(a: { look_at: string | null }, b: { look_at: string | null }): number {
  if (a.look_at === null || b.look_at === null) return Number(a.look_at === null) - Number(b.look_at === null)
  return Date.parse(a.look_at) - Date.parse(b.look_at)
}

/** How long until this pan wants a look; plain once somebody heard its alarm. */
function Countdown({ at, quiet }: { at: number; quiet: boolean }) {
  const left = Math.round((at - useNow()) / 60_000)
  if (left > 0) return <>look in {left} min</>
  return <span className={quiet ? '' : 'rounded-full bg-alarm px-3 py-1 text-bar-ink'}>look now</span>
}

function when(at: string): string {
  const made = day(at)
  return `${made === day(Date.now()) ? 'today' : made}, ${clock(at)}`
}
