import { Link, useLocation } from 'wouter'
import { useBatches, type Stage } from '../api/hooks'
import { clock } from '../shared/clock'
import { Header } from '../shared/Header'
import { useNow } from '../shared/useNow'
import { useSay } from '../shared/units'
import { sauce } from '../figures/tone'
import { Button } from '../ui/Button'

const words: Record<Stage, string> = {
  strain: 'to plan',
  skim: 'to skim',
  reduce: 'reducing',
  thicken: 'thickening',
  season: 'seasoning',
  serve: 'ready to serve',
}

/** Every batch of the kitchen, newest first; what is on the stove before what is done. */
export function BatchList() {
  const batches = useBatches()
  const say = useSay()
  const [, go] = useLocation()
  const items = batches.data?.pages.flatMap((page) => page.items) ?? []
  const groups = [
    { title: 'On the stove', items: items.filter((b) => !b.finished).sort(soonest) },
    { title: 'Finished', items: items.filter((b) => b.finished) },
  ].filter((group) => group.items.length > 0)

  return (
    <>
      <Header title="Batches">
        <Button look="main" onClick={() => go('/start')}>
          Start a batch
        </Button>
      </Header>
      <main className="mx-auto max-w-5xl px-4 pb-16 md:px-7">
        {batches.isError && <p role="alert" className="py-8 text-heat">{batches.error.message}</p>}
        {batches.isSuccess && items.length === 0 && (
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
          </div>
        )}
        {groups.map((group) => (
          <section key={group.title} className="mt-6">
            <h2 className="mb-2 text-base font-semibold text-quiet">{group.title}</h2>
            <ul className="divide-y divide-line border-y border-line">
              {group.items.map((batch) => (
                <li key={batch.id}>
                  <Link
                    href={`/batches/${batch.id}`}
                    className="grid grid-cols-[1fr_auto] items-center gap-x-6 gap-y-1 py-4 md:grid-cols-[1fr_11rem_13rem_8rem]"
                  >
                    <div className="min-w-0">
                      <p className="truncate text-lg font-bold">{batch.name}</p>
                      <p className="text-quiet">
                        {[when(batch.created_at), batch.pan].filter(Boolean).join(' · ')}
                      </p>
                      {batch.concern && <p className="font-semibold text-heat">{batch.concern}</p>}
                    </div>
                    {/* What was there, and what is left of it, to scale. */}
                    <div role="img" aria-label={batch.left ? say(batch.left) : 'unknown'} className="hidden h-9 items-end md:flex">
                      <div className="h-full w-1/3 rounded-l-sm" style={{ background: sauce(0.25) }} />
                      <div
                        className="w-2/3 rounded-r-sm"
                        style={{ height: `${(batch.share ?? 0) * 100}%`, background: sauce(batch.tone ?? 0) }}
                      />
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
                    <p className="col-span-2 font-semibold md:col-span-1 md:text-right">
                      {batch.finished ? <span className="text-done">done</span> : batch.look_at ? <Countdown at={Date.parse(batch.look_at)} quiet={batch.quiet} /> : words[batch.stage]}
                    </p>
                  </Link>
                </li>
              ))}
            </ul>
          </section>
        ))}
        {batches.hasNextPage && (
          <Button className="mt-6" onClick={() => void batches.fetchNextPage()} disabled={batches.isFetchingNextPage}>
            Older batches
          </Button>
        )}
      </main>
    </>
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
  const date = new Date(at)
  const day = date.toDateString() === new Date().toDateString() ? 'today' : date.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
  return `${day}, ${clock(date.getTime())}`
}
