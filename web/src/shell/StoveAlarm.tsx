import { Link, useRoute } from 'wouter'
import { onPages, useAppend, useBatches } from '../api/batches'
import { Button } from '../ui/Button'
import { Words } from '../shared/units'
import { useAlarm } from '../shared/useAlarm'

/** One alarm for every other pot of the kitchen, wherever the cook is: which it is, and one tap to it. */
export function StoveAlarm() {
  const batches = useBatches()
  const [, at] = useRoute('/batches/:id/:view?')
  const pots = onPages(batches.data?.pages)
  // The pot that is open says itself when to look; what of it must be cold stands on no page of its own.
  const looks = pots.map((pot) => ({ ...pot, due: Date.parse((!pot.finished && !pot.quiet && pot.id !== at?.id && pot.look_at) || ''), said: null }))
  const cools = pots.map((pot) => ({ ...pot, due: Date.parse(pot.reminds?.at ?? ''), said: pot.reminds?.said, sound: 'ready' as const }))
  const next = [...looks, ...cools].filter(({ due }) => due).sort((a, b) => a.due - b.due)[0]
  const append = useAppend(next?.id ?? '')
  const { ringing, silent, hush } = useAlarm(next?.due ?? null, false, next?.sound ?? 'hurry', () => next && append.mutate({ kind: 'hushed', due: new Date(next.due).toISOString() }))
  if (!ringing || !next) return null
  return (
    <div role="alert" className="flashes print:hidden sticky top-0 z-40 flex items-center gap-x-4 gap-y-1 bg-alarm px-4 py-1 max-sm:flex-wrap text-bar-ink md:px-7">
      <Link href={`/batches/${next.id}`} className="flex min-h-12 min-w-0 flex-1 items-center text-lg font-bold underline">
        <span className="line-clamp-2 leading-tight break-words">{next.name}</span>
        <span className={next.said ? '' : 'shrink-0'}>: {next.said ? <Words of={next.said} /> : 'look now'}</span>
      </Link>
      {/* The pot that is open says so itself. */}
      {silent && !at && <span className="max-sm:order-last max-sm:basis-full max-sm:text-sm">Sound is off: tap anywhere.</span>}
      <Button look="bar" onClick={hush}>
        Quiet
      </Button>
    </div>
  )
}
